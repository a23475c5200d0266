declare module 'linebreak' {
  /** A place where a line may or must end. */
  interface Break {
    readonly position: number;
    readonly required: boolean;
  }
  export default class LineBreaker {
    constructor(text: string);
    nextBreak(): Break | null;
  }
}
