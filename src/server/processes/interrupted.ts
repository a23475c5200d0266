/** The work was ended by something that its file is not to blame for; it is tried again. */
export class Interrupted extends Error {}
