/** A question that waits for its answer, over the page. */
import { AlertDialog } from "radix-ui";
import type { QuestionProps } from "./Window";
import { SHEET, VEIL } from "./veil";

/** A question that has to be answered before anything else. */
export function Question({ open, onOpenChange, title, about, children, yes, no, first = "yes" }: QuestionProps) {
  const [goOn, stay] = [
    <AlertDialog.Action key="yes" className={first === "yes" ? "btn btn-main" : "btn"} disabled={yes.disabled} onClick={yes.act}>{yes.label}</AlertDialog.Action>,
    <AlertDialog.Cancel key="no" className={first === "no" ? "btn btn-main" : "btn"} onClick={no.act}>{no.label}</AlertDialog.Cancel>,
  ];
  return (
    <AlertDialog.Root open={open} {...(onOpenChange ? { onOpenChange } : {})}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className={VEIL} />
        <AlertDialog.Content className={SHEET}>
          <AlertDialog.Title className="h-station mb-2">{title}</AlertDialog.Title>
          <AlertDialog.Description asChild>
            <div className="mb-4 text-lg">{about}</div>
          </AlertDialog.Description>
          {children}
          <div className="mt-5 flex flex-wrap gap-2">{first === "yes" ? [goOn, stay] : [stay, goOn]}</div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
