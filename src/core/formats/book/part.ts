import type { Block } from './blocks';
import type { Material } from './material';

/** One part of the book, printable alone. `wide` lies across. */
export interface BookPart {
  id: string;
  title: string;
  wide?: boolean;
  blocks: Block[];
}

/** How a part of the book is made: what it is called, when it is there, and its blocks. */
export interface PartMaker {
  id: string;
  title: string;
  wide?: boolean;
  /** Whether a rig has it; always where it is left out. */
  isThere?: (material: Material) => boolean;
  blocks: (material: Material) => Block[];
}
