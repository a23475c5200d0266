/** The look of a menu that opens over the page, and of what is in it. */
export const menuLook = 'z-50 border border-line bg-sheet p-1 shadow';
export const menuItemLook =
  'cursor-default px-2 py-1 outline-none data-[highlighted]:bg-action data-[highlighted]:text-on-action';
