/** The look of a menu that opens over the page, and of what is in it. */
export const menuLook = 'z-50 border border-line bg-sheet p-1 shadow';
/** Of a menu with more in it than a low window has room for: it is scrolled. */
export const longMenuLook = `${menuLook} max-h-(--radix-dropdown-menu-content-available-height) overflow-y-auto`;
export const menuItemLook =
  'cursor-default px-2 py-1 outline-none data-[highlighted]:bg-action data-[highlighted]:text-on-action';
