/**
 * Answers a promise when it is time to let others have their turn, else null: asked between the parts of what
 * takes long.
 */
export type Breath = () => Promise<void> | null;
