"""A shop's whole data, for its lead to keep."""

import re
import tempfile

from django.http import FileResponse, HttpRequest

from report.paper import for_members
from shops.models import Member
from shops.rights import only

from . import archive


@for_members
def shop_archive(request: HttpRequest, member: Member) -> FileResponse:
    """Everything of the member's shop as a ZIP. For who may change the shop."""
    only(member, "change the shop")
    out = tempfile.TemporaryFile()  # noqa: SIM115 - the answer closes it when it was sent
    archive.write(member.shop, out)
    out.seek(0)
    name = "-".join(re.findall(r"[a-z0-9]+", member.shop.name.lower())) or "shop"
    return FileResponse(out, as_attachment=True, filename=f"{name}.zip")
