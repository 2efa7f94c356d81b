/** What other subjects and routes may use of pictures. */
export {
  FoundPictureDto,
  IconsDto,
  KitDto,
  PictureSettingsDto,
  PreviewDto,
  ShareFileDto,
  ShareLookDto,
  ThumbDto,
  UseDto,
} from './dto';
export { environmentById, foundPictures, thumbOf } from './found-pictures';
export { inspectInProcess, warmPictures } from './picture-processes';
export {
  iconsLookOf,
  kitOf,
  picturesOf,
  previewOf,
  savePicture,
  setPictures,
  shareFileOf,
  shareLookOf,
  useFoundPicture,
} from './pictures';
