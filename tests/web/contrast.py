"""How far words stand out from what they stand on, read off the picture itself: hatching and drawings lie under many
of them."""

import io
import re

import numpy as np
from numpy.typing import NDArray
from PIL import Image
from playwright.sync_api import Page

LEAST, LEAST_LARGE = 4.5, 3.0
"""WCAG 2.2, 1.4.3: of text, and of text from 24 px or, in bold, from 18.66 px."""
# of what lies right round the letters, the palest tenth counts: a thin line past a letter's edge hides no letter
WORST_SHARE = 0.1
FEWEST_PX = 20

WORDS = """() => [...(document.querySelector('[role=dialog]') ?? document.body).querySelectorAll('*')]
  .filter(e => !e.matches(':disabled, option, :disabled *')
    && [...e.childNodes].some(n => n.nodeType === 3 && n.data.trim()))
  .map(e => ({e, box: e.getBoundingClientRect(), look: getComputedStyle(e)}))
  .filter(({e, box}) => { const on = document.elementFromPoint(box.x + box.width / 2, box.y + box.height / 2)
    return box.width && box.height && box.x >= 0 && box.y >= 0 && box.right <= innerWidth && box.bottom <= innerHeight
      && (e.closest('svg') || (on && (e.contains(on) || on.contains(e)))) })
  .map(({e, box, look}) => ({words: e.textContent.trim().slice(0, 40), box: [box.left, box.top, box.right, box.bottom],
    ink: e.closest('svg') ? look.fill : look.color,
    large: parseFloat(look.fontSize) >= (+look.fontWeight >= 700 ? 18.66 : 24)}))"""
NO_WORDS = """*, *::placeholder { color: transparent !important; transition: none !important }
  svg text, svg tspan { fill: transparent !important }"""


def pale_words(page: Page) -> list[str]:
    """The words on the screen that cannot well be told from their ground, each with its contrast; looked at again where
    there are some, for the two pictures may have been taken while the screen still moved."""
    if not _looked(page):
        return []
    page.wait_for_timeout(600)
    return _looked(page)


def _looked(page: Page) -> list[str]:
    rows = page.evaluate(WORDS)
    seen = _picture(page)
    hidden = page.add_style_tag(content=NO_WORDS)
    ground = _picture(page)
    hidden.evaluate("tag => tag.remove()")
    near = _grown(np.abs(seen - ground).sum(axis=2) > 40)
    return [told for row in rows if (told := _pale(row, ground, near))]


def _picture(page: Page) -> NDArray[np.float64]:
    return np.asarray(Image.open(io.BytesIO(page.screenshot(animations="disabled"))).convert("RGB")).astype(float)


def _grown(letters: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """The letters and what lies a pixel round them."""
    return np.any([np.roll(letters, (up, along), (0, 1)) for up in (-1, 0, 1) for along in (-1, 0, 1)], axis=0)


def _pale(row: dict[str, object], ground: NDArray[np.float64], near: NDArray[np.bool_]) -> str:
    left, top, right, bottom = (round(v) for v in row["box"])  # type: ignore[attr-defined]
    under = ground[top:bottom, left:right][near[top:bottom, left:right]]
    ink = [float(v) for v in re.findall(r"[\d.]+", str(row["ink"]))][:3]
    if len(under) < FEWEST_PX or len(ink) < 3:
        return ""
    lights, light = _luminance(under), _luminance(np.array(ink))
    ratios = (np.maximum(lights, light) + 0.05) / (np.minimum(lights, light) + 0.05)
    worst = float(np.quantile(ratios, WORST_SHARE))
    return f"{row['words']}: {worst:.2f}" if worst < (LEAST_LARGE if row["large"] else LEAST) else ""


def _luminance(rgb: NDArray[np.float64]) -> NDArray[np.float64]:
    """Relative luminance, WCAG 2.2."""
    share = rgb / 255
    linear = np.where(share <= 0.04045, share / 12.92, ((share + 0.055) / 1.055) ** 2.4)
    light: NDArray[np.float64] = linear @ np.array([0.2126, 0.7152, 0.0722])
    return light
