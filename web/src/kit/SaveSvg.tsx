import type { RefObject } from "react";
import { download, svgText } from "../drawing/save";

export function SaveSvg({ picture, name }: { picture: RefObject<SVGSVGElement | null>; name: string }) {
  return (
    <button
      type="button"
      className="btn btn-small"
      onClick={() => {
        if (picture.current) download(`${name}.svg`, "image/svg+xml", svgText(picture.current));
      }}
    >
      Save picture
    </button>
  );
}
