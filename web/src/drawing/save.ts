/** Saves a picture on the page as an SVG file that looks the same elsewhere. */

const KEPT = [
  "fill",
  "fill-opacity",
  "stroke",
  "stroke-width",
  "stroke-dasharray",
  "stroke-linejoin",
  "stroke-linecap",
  "opacity",
  "font-family",
  "font-size",
  "font-weight",
  "text-anchor",
  "dominant-baseline",
];

/** The picture as text, with the styles that the page gives it written into it; in the light scheme, whatever the page shows, since it goes on paper. */
export function svgText(svg: SVGSVGElement): string {
  const { dataset } = document.documentElement;
  const { theme } = dataset;
  delete dataset.theme;
  try {
    return written(svg);
  } finally {
    if (theme !== undefined) dataset.theme = theme;
  }
}

function written(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const from = [svg, ...svg.querySelectorAll("*")];
  const to = [copy, ...copy.querySelectorAll("*")];
  from.forEach((element, i) => {
    const style = getComputedStyle(element);
    const target = to[i];
    if (!target) return;
    for (const name of KEPT) {
      const value = style.getPropertyValue(name);
      if (value) target.setAttribute(name, value);
    }
    target.removeAttribute("class");
    target.removeAttribute("style");
  });
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  return new XMLSerializer().serializeToString(copy);
}

/** Offers a text as a file. */
export function download(name: string, type: string, text: string): void {
  const url = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}
