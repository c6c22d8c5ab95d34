/** MVR-xchange: rigs handed from station to station (DIN SPEC 15801, MVR 1.6). */
export * as Xchange from './constants';
export * from './packet';
export * from './messages';
export * from './names';
export * from './sightings';
export * from './station';
