"""Pictures from outside: checked, and written anew without anything beside them."""

import io

from PIL import Image, ImageFile, ImageOps, UnidentifiedImageError

from lumvek_core.errors import BadInput

LARGEST_BYTES = 6 * 1024 * 1024
"""Of a file as it is sent. The front end shrinks to well under one megabyte before sending."""
LONGEST_SIDE = 1600
FORMATS = ("JPEG", "PNG", "WEBP")


def clean(data: bytes, longest: int = LONGEST_SIDE) -> tuple[bytes, int, int]:
    """The picture as a new JPEG of at most `longest` pixels a side, upright, without place, device or any other data beside it.

    Returns content, width and height in pixels. Raises BadInput with field ``photo`` for anything that is no picture.
    """
    if len(data) > LARGEST_BYTES:
        raise BadInput("photo", f"must be under {LARGEST_BYTES // 1024 // 1024} MB")
    # Whoever makes PDFs switches this on for the whole process.
    ImageFile.LOAD_TRUNCATED_IMAGES = False
    try:
        with Image.open(io.BytesIO(data), formats=FORMATS) as opened:
            if opened.width * opened.height > 60_000_000:
                raise BadInput("photo", "has too many pixels")
            picture = _on_white(_upright(opened))
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        raise BadInput("photo", "is not a picture (JPEG, PNG or WebP)") from None
    picture.thumbnail((longest, longest))
    out = io.BytesIO()
    picture.save(out, "JPEG", quality=82, optimize=True)
    return out.getvalue(), picture.width, picture.height


def _upright(picture: Image.Image) -> Image.Image:
    """Turned as the camera was held; where what is written about that is broken, as it is."""
    picture.load()
    try:
        return ImageOps.exif_transpose(picture)
    except Exception:  # whatever a broken header leads to: it is the picture that counts
        return picture


def _on_white(picture: Image.Image) -> Image.Image:
    """Without transparency: what shows through is paper."""
    if "A" not in picture.getbands() and "transparency" not in picture.info:
        return picture.convert("RGB")
    drawn = picture.convert("RGBA")
    paper = Image.new("RGB", drawn.size, "white")
    paper.paste(drawn, mask=drawn.getchannel("A"))
    return paper
