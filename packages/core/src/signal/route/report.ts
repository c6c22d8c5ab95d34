/** Routes and controls as they run. */
import { integer, listOf, orNull, real, report, words, yesNo, type ReportOf } from '../../base/field';

export const routeReport = report('RouteNow', {
  id: words(),
  row: integer('Its place among the routes of the feed; its owners are those of the mixer.'),
  running: yesNo(),
  since: integer('Unix time of being switched on, ms; 0 while off.'),
  by: words(),
  inputs: listOf(yesNo(), 'Of each input, whether it is heard.'),
  parts: listOf(yesNo(), 'Of each part, whether it is heard.'),
  current: integer('Merge `backup`: the input let through, −1 for none.'),
  rate: real('Packets sent in the last second.'),
  to: listOf(words(), 'Addresses or groups that it goes to.'),
});
export interface RouteReport extends ReportOf<typeof routeReport.fields> {}

export const controlReport = report('ControlNow', {
  id: words(),
  level: orNull(integer('Level of its channel, 0–255; null while its universe is not heard.')),
});
export interface ControlReport extends ReportOf<typeof controlReport.fields> {}
