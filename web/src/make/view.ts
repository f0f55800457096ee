/** View is the part of a drawing that is seen, in its units. */
export interface View {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** How far one may go in: so much of the drawing's width is left. */
const closest = 0.08;

/** whole is all of a drawing. */
export const whole = (w: number, h: number): View => ({ x: 0, y: 0, w, h });

const between = (least: number, v: number, most: number): number => Math.min(Math.max(v, least), Math.max(least, most));

/** inside keeps a view within its drawing, and in its shape. */
function inside(v: View, of: View): View {
  const w = between(of.w * closest, v.w, of.w);
  const h = (w * of.h) / of.w;
  return { w, h, x: between(0, v.x, of.w - w), y: between(0, v.y, of.h - h) };
}

/** zoomed is a view that shows so many times less, with a point of the drawing where it was. */
export function zoomed(v: View, of: View, times: number, at: { x: number; y: number } = { x: v.x + v.w / 2, y: v.y + v.h / 2 }): View {
  const w = between(of.w * closest, v.w / times, of.w);
  const share = w / v.w;
  return inside({ w, h: v.h * share, x: at.x - (at.x - v.x) * share, y: at.y - (at.y - v.y) * share }, of);
}

/** moved is a view moved by so much, in the drawing's units. */
export const moved = (v: View, of: View, dx: number, dy: number): View => inside({ ...v, x: v.x + dx, y: v.y + dy }, of);

/** isWhole says whether all of a drawing is seen. */
export const isWhole = (v: View, of: View): boolean => v.w > of.w * 0.999;
