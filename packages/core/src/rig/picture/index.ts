/** Test pictures: what is shown to a person who looks whether lamps and cables do as they should. */
export { levelAt, universesIn, type Program, type Track } from './program';
export { looksOf } from './looks';
export { TEST_PICTURES, blinked, looksProgram, pictureOfLamps, pictureOfUniverses, type TestPicture } from './make';
export { MOST_PICTURED, programOf, type PictureWish } from './wish';
export { pictureReport, type PictureReport } from './report';
