import type { RefObject } from "react";
import { download, svgText } from "../drawing/save";

export function SaveSvg({
  picture,
  name,
  label = "Save picture",
}: {
  picture: RefObject<SVGSVGElement | null>;
  name: string;
  label?: string;
}) {
  return (
    <button
      type="button"
      className="btn btn-small"
      onClick={() => {
        if (picture.current) download(`${name}.svg`, "image/svg+xml", svgText(picture.current));
      }}
    >
      {label}
    </button>
  );
}
