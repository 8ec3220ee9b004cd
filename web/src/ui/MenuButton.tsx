"use client";
import type { MenuProps } from "antd";
import { useState, type ComponentProps, type ComponentType, type ReactElement } from "react";
import type { OpenMenu } from "./OpenMenu";

type Menu = ComponentType<ComponentProps<typeof OpenMenu>>;

/** A button whose menu comes with its first use: few visits need it, and all would wait for it. */
export function MenuButton({
  items,
  button,
}: {
  readonly items: MenuProps["items"];
  /** @param onClick opens the menu the first time; afterwards the menu opens by itself */
  readonly button: (onClick: (() => void) | undefined) => ReactElement;
}) {
  const [Menu, setMenu] = useState<Menu | undefined>(undefined);
  const [isOpen, setOpen] = useState(false);
  if (Menu)
    return (
      <Menu items={items} isOpen={isOpen} onOpen={setOpen}>
        {button(undefined)}
      </Menu>
    );
  return button(() => {
    void import("./OpenMenu").then((m) => {
      setMenu(() => m.OpenMenu);
      setOpen(true);
    });
  });
}
