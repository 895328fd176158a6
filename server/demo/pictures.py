"""Pictures that stand for photographs."""

import io

from PIL import Image, ImageDraw


def drawn(what: str) -> bytes:
    """A picture that stands for a photograph: toothed steel on a dark ground, different for each check."""
    image = Image.new("RGB", (960, 640), (52, 50, 46))
    pen = ImageDraw.Draw(image)
    seed = sum(map(ord, what))
    for y in range(0, 640, 4):
        shade = 52 + (y * seed) % 9
        pen.line([(0, y), (960, y)], fill=(shade, shade - 2, shade - 6))
    for i in range(8):
        x, worn = 40 + i * 112, 24 if i in (seed % 8, (seed + 1) % 8) else 0
        pen.polygon(
            [(x, 470), (x + 104, 470), (x + 66, 150 + worn * 3), (x + 38, 150 + worn)],
            fill=(168, 164, 154),
            outline=(96, 92, 84),
        )
        pen.line([(x + 20, 430), (x + 44, 190 + worn)], fill=(206, 202, 190), width=4)
    pen.rectangle([0, 470, 960, 530], fill=(120, 112, 98))
    for i in range(16):
        pen.ellipse([28 + i * 60, 488, 52 + i * 60, 512], fill=(88, 84, 76))
    out = io.BytesIO()
    image.save(out, "JPEG", quality=80)
    return out.getvalue()
