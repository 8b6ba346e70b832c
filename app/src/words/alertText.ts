import type { AlertKind } from '@plain-trowel/core/control/alerts';
import type { GardenEvent } from '@plain-trowel/core/records/event';

/** The kind of an alert as a setting is named. */
export function alertName(kind: AlertKind): string {
  switch (kind) {
    case 'dry':
      return 'Dry';
    case 'wet':
      return 'Wet';
    case 'hot':
      return 'Hot';
    case 'cold':
      return 'Cold, frost';
    case 'probe-fault':
      return 'Probe fault';
    case 'out-of-soil':
      return 'Out of the soil';
    case 'silent-board':
      return 'Silent board';
    case 'tank-low':
      return 'Tank low';
    case 'battery-low':
      return 'Battery low';
    case 'frozen-charge':
      return 'Frost on a lithium cell';
    case 'line-locked':
      return 'Line locked';
    case 'recalibrate':
      return 'Recalibrate';
  }
}

export function alertPhaseWord(phase: Extract<GardenEvent, { kind: 'alert' }>['phase']): string {
  switch (phase) {
    case 'raised':
      return 'Alert';
    case 'repeated':
      return 'Still raised';
    case 'cleared':
      return 'Cleared';
    case 'acknowledged':
      return 'Seen';
    case 'snoozed':
      return 'Snoozed';
  }
}
