/** Why a line makes no body, with the cure and, where one is to blame, the chip. */
export class GeometryFault extends Error {
  constructor(
    message: string,
    readonly fix: string,
    readonly chip?: string,
    readonly code = 'shape.impossible',
  ) {
    super(message);
  }
}
