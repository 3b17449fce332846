/** *Now* as the two slanted strokes of the sign, from `top` to `foot`, px. */
export function drawWingBars(
  c: CanvasRenderingContext2D,
  x: number,
  { top, foot }: { top: number; foot: number },
  colour: string,
): void {
  c.fillStyle = colour;
  for (const shift of [-4, 4]) {
    c.beginPath();
    c.moveTo(x + shift + 3, top);
    c.lineTo(x + shift + 6, top);
    c.lineTo(x + shift - 1, foot);
    c.lineTo(x + shift - 4, foot);
    c.fill();
  }
}
