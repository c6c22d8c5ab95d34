/** The visualiser with nothing wrong. */
import type { VisualiserFaults } from '@taxiarch/core/contract';

export const RIGHT: VisualiserFaults = { base: 1, iface: 'right', otherMode: false, early: false };
