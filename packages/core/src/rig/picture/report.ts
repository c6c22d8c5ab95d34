/** A test picture as it runs. */
import { integer, real, report, words, type ReportOf } from '../../base/field';

export const pictureReport = report('Picture', {
  id: words('As its client calls it.'),
  holder: words('Who shows it: the name that its feed was told.'),
  by: words(),
  says: words('What it is.'),
  universes: integer('So many are sent for it.'),
  step: integer('Where it is, from 0.'),
  steps: integer('Until it begins anew.'),
  speed: real('Steps a second.'),
  level: real('0–1.'),
  since: integer('Unix time, ms.'),
});
export interface PictureReport extends ReportOf<typeof pictureReport.fields> {}
