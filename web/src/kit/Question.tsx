/** A question that waits for its answer, over the page. */
import { AlertDialog } from "radix-ui";
import type { ReactNode } from "react";
import { SHEET, VEIL } from "./veil";

export interface QuestionProps {
  open: boolean;
  onOpenChange?: (open: boolean) => void;
  title: string;
  /** What it is about, read out with the title. */
  about: ReactNode;
  children?: ReactNode;
  /** To go on, and what is done then. */
  yes: { label: string; disabled?: boolean; act(): void };
  /** To leave all as it is. */
  no: { label: string; act?(): void };
  /** Which of the two the eye finds first. */
  first?: "yes" | "no";
}

/** A question that has to be answered before anything else. */
export function Question({
  open,
  onOpenChange,
  title,
  about,
  children,
  yes,
  no,
  first = "yes",
}: QuestionProps) {
  const [goOn, stay] = [
    <AlertDialog.Action
      key="yes"
      className={first === "yes" ? "btn btn-main" : "btn"}
      disabled={yes.disabled}
      onClick={yes.act}
    >
      {yes.label}
    </AlertDialog.Action>,
    <AlertDialog.Cancel key="no" className={first === "no" ? "btn btn-main" : "btn"} onClick={no.act}>
      {no.label}
    </AlertDialog.Cancel>,
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
