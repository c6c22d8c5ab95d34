/** The visualiser with nothing wrong. */
import type { VisualiserFaults } from '@taxiarch/core/whole/contract';

export const RIGHT: VisualiserFaults = { base: 1, iface: 'right', otherMode: false, early: false };
