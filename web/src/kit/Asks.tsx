/** A question that waits for its answer, over the page. */
import { lazy, Suspense } from "react";
import type { QuestionProps } from "./Question";

const Asked = lazy(async () => ({ default: (await import("./Question")).Question }));

/** A question that has to be answered before anything else; its script comes when one is asked first, or as soon as the browser is idle. */
export function Question(props: QuestionProps) {
  return props.open ? (
    <Suspense fallback={null}>
      <Asked {...props} />
    </Suspense>
  ) : null;
}
