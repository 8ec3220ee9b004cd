"use client";
import { Dropdown, type MenuProps } from "antd";
import type { ReactElement } from "react";

/** A menu that is open at a button, or closed again. */
export function OpenMenu({
  items,
  isOpen,
  onOpen,
  children,
}: {
  readonly items: MenuProps["items"];
  readonly isOpen: boolean;
  readonly onOpen: (isOpen: boolean) => void;
  readonly children: ReactElement;
}) {
  return (
    <Dropdown
      trigger={["click"]}
      menu={{ items: items ?? [] }}
      placement="bottomRight"
      open={isOpen}
      onOpenChange={onOpen}
      autoFocus
    >
      {children}
    </Dropdown>
  );
}
