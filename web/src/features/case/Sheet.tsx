"use client";
import { Modal } from "antd";
import { useMessages } from "@/ui/Theme";
import { useRef, type ReactNode } from "react";
import { inSheet } from "@/ui/focus";
import { t } from "@/messages";

/** What takes the first key when a sheet is opened once more. */
const firstTypedIn = (sheet: HTMLElement | null) =>
  sheet?.querySelector<HTMLElement>("[data-first]:not(:disabled)") ??
  sheet?.querySelector("textarea") ??
  sheet?.querySelector<HTMLElement>("input:not([type=file]):not([readonly])");

/** A sheet over the case. When it closes, the value box has the focus again. */
export function Sheet({
  open,
  title,
  width,
  onClose,
  keeps = false,
  children,
}: {
  readonly open: boolean;
  readonly title: string;
  readonly width: number;
  readonly onClose: () => void;
  /** what is typed stays when it is tapped away, until the job is left */
  readonly keeps?: boolean;
  readonly children: ReactNode;
}) {
  const message = useMessages();
  const content = useRef<HTMLDivElement>(null);
  const hasTyped = useRef(false);
  return (
    <Modal
      open={open}
      onCancel={() => {
        if (keeps && hasTyped.current) void message.info(t("job.whatYouTypedIsKeptOpen"));
        onClose();
      }}
      title={title}
      footer={null}
      destroyOnHidden={!keeps}
      width={width}
      style={{ top: 20 }}
      focusable={{ focusTriggerAfterClose: false }}
      afterOpenChange={(isOpen) => {
        if (isOpen && keeps && !content.current?.contains(document.activeElement))
          firstTypedIn(content.current)?.focus();
      }}
      afterClose={() => {
        if (!inSheet())
          document.querySelector<HTMLInputElement>("[data-next-reading] form input")?.focus({ preventScroll: true });
      }}
    >
      <div ref={content} onInput={() => (hasTyped.current = true)}>
        {children}
      </div>
    </Modal>
  );
}
