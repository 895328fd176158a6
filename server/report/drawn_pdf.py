"""Drawing a page as a PDF, in a process that knows nothing of the server."""

from base64 import b64encode


def draw(html: str) -> str:
    """A whole page, with its pictures in it, as a PDF in base 64."""
    from weasyprint import HTML  # loads Pango: only when somebody wants a PDF

    return b64encode(HTML(string=html, base_url="about:blank").write_pdf()).decode()
