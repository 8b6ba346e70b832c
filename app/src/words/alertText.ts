import type { AlertKind } from '@plain-trowel/core/control/alerts';
import type { GardenEvent } from '@plain-trowel/core/records/event';

/** What an alert says, behind the name of what it is about. */
export function alertWords(kind: AlertKind): string {
  switch (kind) {
    case 'dry':
      return 'too dry';
    case 'wet':
      return 'too wet';
    case 'hot':
      return 'too hot';
    case 'cold':
      return 'too cold, frost may come';
    case 'probe-fault':
      return 'the probe cannot be trusted';
    case 'out-of-soil':
      return 'the probe reads what it reads in air: out of the soil, or the soil has shrunken away? Nothing waters by it';
    case 'silent-board':
      return 'the board is silent';
    case 'tank-low':
      return 'below its minimum: fill it';
    case 'battery-low':
      return 'the battery is low';
    case 'frozen-charge':
      return 'it is freezing, and a lithium cell must not be charged below 0 °C: take the panel or the charger off until it is warmer, or bring it in';
    case 'line-locked':
      return 'locked: doses did not raise the reading. Check tube, pump and probe, then unlock it';
    case 'recalibrate':
      return 'its calibration is due again';
  }
}

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
