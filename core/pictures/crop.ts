/** Which part of a picture is kept when it is cropped. */

export interface Size {
  width: number;
  height: number;
}
export interface Crop extends Size {
  left: number;
  top: number;
}
/** The point that matters, as shares of width and height, and how far one goes in: 1 keeps the most. */
export interface Focus {
  x: number;
  y: number;
  zoom: number;
}

/** Of pictures for shared links: common practice, as sharing.image-size asks. */
export const SHARE_SIZE: Size = { width: 1200, height: 630 };
/** The outermost part that some networks round off or cover: common practice. */
export const SAFE_MARGIN = 0.05;

const within = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, value));

/**
 * The largest part with the goal's proportions, made smaller by the zoom, with the focus as near to its middle as
 * the picture's edges allow.
 * @param of the whole picture, in pixels
 * @returns whole pixels, within the picture
 */
export function cropTo(of: Size, goal: Size, { x, y, zoom }: Focus): Crop {
  const ratio = goal.width / goal.height;
  const widest = Math.min(of.width, of.height * ratio);
  const width = within(Math.round(widest / zoom), 1, of.width);
  const height = within(Math.round(widest / zoom / ratio), 1, of.height);
  return {
    left: Math.round(within(x * of.width - width / 2, 0, of.width - width)),
    top: Math.round(within(y * of.height - height / 2, 0, of.height - height)),
    width,
    height,
  };
}

/** How many times a crop is enlarged to fill its goal; 1 and less loses nothing. */
export const enlargement = (crop: Size, goal: Size): number => goal.width / crop.width;
