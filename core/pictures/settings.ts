/** How a site's pictures are made from what was given. */
import type { Focus } from './crop';
import type { ShareFormat } from './kit';

/** Which part is kept, and as what. */
export interface ShareCrop extends Focus {
  format: ShareFormat;
  /** What stands where the picture is clear, "#rrggbb". */
  ground: string;
}
export interface ShareEncoding extends ShareCrop {
  /** 1 to 100, for JPEG. */
  quality: number;
}
export interface ShareSettings extends ShareEncoding {
  /** What the picture shows, in a sentence. */
  alt: string;
}

export interface IconSettings {
  /** Share of the side that stays empty on each edge. */
  padding: number;
  /** What stands behind it, "#rrggbb"; empty for nothing. */
  ground: string;
  /** Whether the empty edge of the picture is cut off first. */
  trim: boolean;
}

export interface PictureSettings {
  /** Where the files will lie, below the environment’s address. */
  folder: string;
  share: ShareSettings;
  icon: IconSettings;
}

/** The qualities that byte sizes are shown for. */
export const QUALITIES: readonly number[] = [40, 50, 60, 70, 75, 80, 85, 90, 95];
export const MOST_ZOOM = 4;
export const MOST_PADDING = 0.4;

/** Before anybody has turned anything. */
export const USUAL_SETTINGS: PictureSettings = {
  folder: '/',
  share: { x: 0.5, y: 0.5, zoom: 1, format: 'jpeg', quality: 80, ground: '#ffffff', alt: '' },
  icon: { padding: 0, ground: '', trim: true },
};

/** What a picture is for. */
export type PictureUse = 'share' | 'icon';
export const PICTURE_USES: readonly PictureUse[] = ['share', 'icon'];

/** The largest picture that is taken, in bytes and in pixels. */
export const MOST_PICTURE_BYTES = 20 * 1024 * 1024;
export const MOST_PIXELS = 60_000_000;
