/** Whether somebody works in a sheet: then nothing behind it may take the focus. */
export const inSheet = () => Boolean(document.activeElement?.closest("[role='dialog']"));
