/** A request that asks for something wrong; the message says what would do. */
export class BadRequest extends Error {}

/** Something that is asked for by its name and is not there. */
export class NotFound extends Error {}

/** A stored document that this program cannot read; it stays as it is and can be handed out raw. */
export class Unreadable extends Error {}

/** A save that was made on top of a version that is no longer the newest. Both are kept. */
export class StaleSave extends Error {
  constructor(
    readonly head: string,
    readonly kept: string,
  ) {
    super('this job was changed elsewhere since it was opened here; both versions are kept, choose one');
  }
}

/** Something that is done at the machine itself, asked for from another device. */
export class Elsewhere extends Error {}

/** Data that a newer version of this program has brought up to date. */
export class NewerShop extends Error {}
