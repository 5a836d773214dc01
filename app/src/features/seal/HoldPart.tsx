import {
  formatPressure,
  metersFromShown,
  mostPressure,
  pressureFromShown,
  pressureUnit,
  shownNumber,
  shownPressure,
  type HoldingRun,
  type Units,
} from '@cordel/core';
import {
  airFromShown,
  airUnit,
  celsiusAtGauge,
  degreesFromShown,
  formatAir,
  formatTemperature,
  holdingResult,
  pressureAt,
  shownDegrees,
  stopWords,
  temperatureFromShown,
  temperatureUnit,
  type HoldingResult,
} from '@cordel/core/seal';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { setPreferences, usePreferences } from '../../data/preferences';
import { Screen } from '../../shell/frame/Screen';
import { places } from '../../shell/places';
import { PreparePanes, type AtHand } from '../../shell/steps/AtClosure';
import { whoAndWhen } from '../../shell/steps/tickWords';
import { Action } from '../../ui/Action';
import { Caution } from '../../ui/Caution';
import { TextBox } from '../../ui/Field';
import { toNumber } from '../../ui/numberField';
import { Trouble } from '../../ui/Trouble';
import { dayAndTime, type ShownZone } from '../../ui/times';
import { gutter, space } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { PointedFoot } from './PointedFoot';
import type { Sealing } from './useSeal';

/** Pressure held over hours: the readings, what they say, and with which arithmetic. */
export function HoldPart({ atHand, seal }: { atHand: AtHand; seal: Sealing }) {
  const { projectId, closure, siteName } = atHand;
  const runs = seal.stage.state.holding;
  const running = runs.findLast(({ before, dropped }) => !before && !dropped) ?? null;
  const under = seal.stage.state.pressure !== null;
  const goesOn = running !== null && under;
  const [form, setForm] = useState<Form>(emptyForm);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { units } = atHand.definition.project;
  const preferences = usePreferences();
  const air = airOf(form, units);
  const celsius = temperatureFromShown(toNumber(form.celsius), units);
  const gauge = pressureFromShown(toNumber(form.gauge), units);
  const store = async () => {
    const wrong =
      running && goesOn
        ? await seal.hold({
            did: 'read',
            beganId: running.began.id,
            gauge,
            celsius,
            air,
          })
        : await seal.hold({
            did: 'began',
            gauge,
            celsius,
            air,
            gaugeError: pressureFromShown(
              toNumber(form.gaugeError || shownNumber(shownPressure(preferences.gaugeError, units))),
              units,
            ),
            celsiusError:
              form.celsiusError.trim() === ''
                ? preferences.celsiusError
                : degreesFromShown(toNumber(form.celsiusError), units),
            allowed: {
              kPa: pressureFromShown(toNumber(form.lost), units),
              hours: toNumber(form.hours),
            },
            liters: form.liters.trim() === '' ? (seal.stage.how?.liters ?? null) : toNumber(form.liters),
          });
    setTrouble(wrong);
    if (wrong !== null) return;
    const pressureError = toNumber(form.gaugeError);
    const celsiusError = degreesFromShown(toNumber(form.celsiusError), units);
    if (!goesOn)
      setPreferences({
        ...(pressureError > 0 ? { gaugeError: pressureFromShown(pressureError, units) } : {}),
        ...(celsiusError > 0 ? { celsiusError } : {}),
      });
    setForm({ ...form, gauge: '', celsius: '' });
  };
  return (
    <PreparePanes atHand={atHand}>
      <Screen
        title={`Holding test · ${siteName}`}
        subtitle={goesOn ? 'under pressure' : 'for owners who want one'}
        up={{ href: places.seal(projectId, closure.id), name: 'sealing' }}
        foot={
          <PointedFoot
            label={goesOn ? 'Store this reading' : 'Begin the test'}
            detail={form.gauge.trim() === '' ? 'the gauge is not read yet' : formatPressure(gauge, units)}
            disabled={form.gauge.trim() === '' || form.celsius.trim() === ''}
            onPress={() => void store()}
          />
        }
      >
        <ScrollView contentContainerStyle={styles.list}>
          {running ? <Run atHand={atHand} run={running} /> : null}
          <ReadingForm
            atHand={atHand}
            form={form}
            onChange={(next) => {
              setForm(next);
              setTrouble(null);
            }}
            begins={!goesOn}
            liters={seal.stage.how?.liters ?? null}
          />
          {trouble ? <Trouble text={trouble} /> : null}
          {goesOn ? (
            <View style={styles.keys}>
              <Action
                bench
                label="Pressure out, cap back on"
                onPress={() => void seal.flash({ did: 'released', capBack: true })}
              />
              <Action
                bench
                label="Drop this test"
                onPress={() => void seal.hold({ did: 'dropped', beganId: running.began.id })}
              />
            </View>
          ) : null}
          <Caution
            text={`${stopWords(units)} Sun on the closure raises it: begin lower where it will lie in the sun. Somebody has to come back and let it out.`}
          />
          {runs
            .filter((run) => run !== running)
            .map((run) => (
              <Run key={run.began.id} atHand={atHand} run={run} />
            ))}
        </ScrollView>
      </Screen>
    </PreparePanes>
  );
}

interface Form {
  readonly gauge: string;
  readonly celsius: string;
  readonly air: string;
  readonly height: string;
  readonly gaugeError: string;
  readonly celsiusError: string;
  readonly lost: string;
  readonly hours: string;
  readonly liters: string;
}
const emptyForm: Form = {
  gauge: '',
  celsius: '',
  air: '',
  height: '',
  gaugeError: '',
  celsiusError: '',
  lost: '',
  hours: '24',
  liters: '',
};

/** kPa: as the barometer shows, or of the standard atmosphere at a height. */
function airOf({ air, height }: Form, units: Units): number {
  if (air.trim() !== '') return airFromShown(toNumber(air), units);
  return height.trim() === '' ? Number.NaN : pressureAt(metersFromShown(toNumber(height), units));
}

function ReadingForm({
  atHand,
  form,
  onChange,
  begins,
  liters,
}: {
  atHand: AtHand;
  form: Form;
  onChange: (form: Form) => void;
  begins: boolean;
  liters: number | null;
}) {
  const { units } = atHand.definition.project;
  const preferences = usePreferences();
  const unit = pressureUnit(units);
  const box = (name: keyof Form, label: string, more: { unit?: string; hint?: string } = {}) => (
    <View style={styles.field}>
      <TextBox
        bench
        label={label}
        keyboard="decimal"
        value={form[name]}
        onChangeText={(text) => onChange({ ...form, [name]: text })}
        {...more}
      />
    </View>
  );
  const byHeight = form.air.trim() === '' && form.height.trim() !== '';
  const began = {
    gauge: pressureFromShown(toNumber(form.gauge), units),
    air: airOf(form, units),
    celsius: temperatureFromShown(toNumber(form.celsius), units),
  };
  const stop = celsiusAtGauge(began, mostPressure);
  return (
    <View role="group" aria-label={begins ? 'Begin' : 'Read'} style={styles.part}>
      <Type look="heading" role="heading" aria-level={2}>
        {begins ? 'Begin' : 'Read now'}
      </Type>
      <View style={styles.row}>
        {box('gauge', 'Gauge', { unit })}
        {box('celsius', 'Temperature in it', {
          unit: temperatureUnit(units),
          hint: 'of the closure, not of the air',
        })}
      </View>
      <View style={styles.row}>
        {box('air', 'Air pressure here', {
          unit: airUnit(units),
          hint: 'as a barometer shows it on the spot',
        })}
        {box('height', 'or height above the sea', {
          unit: units === 'mm' ? 'm' : 'ft',
          ...(byHeight && Number.isFinite(began.air)
            ? { hint: `${formatAir(began.air, units)} in the standard atmosphere` }
            : {}),
        })}
      </View>
      {begins ? (
        <>
          <View style={styles.row}>
            {box('lost', 'May lose', { unit, hint: 'by the owner’s rules' })}
            {box('hours', 'within', { unit: 'h' })}
          </View>
          <View style={styles.row}>
            {box('gaugeError', 'Gauge off by at most', {
              unit,
              hint: `${shownNumber(shownPressure(preferences.gaugeError, units))} where it stays empty`,
            })}
            {box('celsiusError', 'Thermometer off by at most', {
              unit: temperatureUnit(units),
              hint: `${shownNumber(shownDegrees(preferences.celsiusError, units))} where it stays empty`,
            })}
          </View>
          {box('liters', 'Gas in the closure', {
            unit: 'l',
            hint:
              liters === null
                ? 'for the leak rate; it can stay empty'
                : `${shownNumber(liters)} by its table`,
          })}
          {Number.isFinite(stop) ? (
            <Type look="small">
              In a closure that holds it reaches {formatPressure(mostPressure, units)} at{' '}
              {formatTemperature(Math.round(stop), units)}.
            </Type>
          ) : null}
        </>
      ) : null}
    </View>
  );
}

const verdictWords: Readonly<Record<HoldingResult['verdict'], string>> = {
  tight: 'Tight',
  leaking: 'Leaking',
  'cannot-tell': 'Cannot tell',
};

/** A test with its readings, each with its verdict and the arithmetic behind it. */
function Run({ atHand, run }: { atHand: AtHand; run: HoldingRun }) {
  const { units, timeZone } = atHand.definition.project;
  const { body } = run.began;
  return (
    <View role="group" aria-label="Test" style={styles.part}>
      <Type look="strong">
        Begun {dayAndTime(run.began.madeAt, timeZone)}: {formatPressure(body.gauge, units)} at{' '}
        {formatTemperature(body.celsius, units)}, air {formatAir(body.air, units)}
        {run.dropped ? ' · dropped' : run.before ? ' · before it was opened again' : ''}
      </Type>
      <Type look="small" tone="soft">
        May lose {formatPressure(body.allowed.kPa, units)} within {shownNumber(body.allowed.hours)} h; gauge ±{' '}
        {formatPressure(body.gaugeError, units)}, thermometer ±{' '}
        {shownNumber(shownDegrees(body.celsiusError, units))} {temperatureUnit(units)}
      </Type>
      {run.reads.map((read) => (
        <ReadResult key={read.id} run={run} read={read} units={units} zone={timeZone} />
      ))}
    </View>
  );
}

function ReadResult({
  run,
  read,
  units,
  zone,
}: {
  run: HoldingRun;
  read: HoldingRun['reads'][number];
  units: 'mm' | 'in';
  zone: ShownZone;
}) {
  const { body } = run.began;
  const hours = (Date.parse(read.madeAt) - Date.parse(run.began.madeAt)) / 3600_000;
  const result = holdingResult({ ...body, began: body, read: read.body, hours });
  const shown = (kPa: number) => formatPressure(kPa, units);
  /** Of the arithmetic, in the project's unit: the air too. */
  const figure = (kPa: number) =>
    shownNumber((units === 'mm' ? kPa : kPa / pressureFromShown(1, units)).toFixed(2));
  const kelvin = (celsius: number) => shownNumber((celsius + 273.15).toFixed(2));
  const until =
    result.waitHours === null
      ? null
      : dayAndTime(Date.parse(run.began.madeAt) + result.waitHours * 3600_000, zone);
  return (
    <View role="group" aria-label={`Read ${whoAndWhen(read, zone)}`} style={styles.part}>
      <Type look="title" tone={result.verdict === 'leaking' ? 'accent' : 'ink'} role="status">
        {verdictWords[result.verdict]}
        {result.verdict !== 'cannot-tell'
          ? ''
          : result.because === 'gained'
            ? ': more in it than there can be. Read the temperature again, in the closure.'
            : until
              ? `, wait until ${until}`
              : ': the errors of gauge and thermometer are too large for what may be lost'}
      </Type>
      <Type>
        After {shownNumber(hours.toFixed(1))} h: {shown(read.body.gauge)} at{' '}
        {formatTemperature(read.body.celsius, units)}, air {formatAir(read.body.air, units)} ·{' '}
        {whoAndWhen(read, zone)}
      </Type>
      <Type look="small">
        A tight closure reads ({figure(body.gauge)} + {figure(body.air)}) × {kelvin(read.body.celsius)} /{' '}
        {kelvin(body.celsius)} − {figure(read.body.air)} = {figure(result.expected)} {pressureUnit(units)}.
        Lost, reckoned to the first temperature: {shown(result.lost)} ± {shown(result.uncertainty)}; it may
        lose {shown(result.mayLose)} by now.
      </Type>
      {result.leakRate !== null ? (
        <Type look="small">
          Leak rate {rateWords(result.leakRate)} ± {rateWords(result.leakRateUncertainty!)} Pa·m³/s
        </Type>
      ) : null}
      {read.body.gauge > mostPressure ? (
        <Type look="strong" tone="accent" role="alert">
          {shown(read.body.gauge)} are above the stop. Let some out.
        </Type>
      ) : null}
    </View>
  );
}

const rateWords = (rate: number) =>
  shownNumber(rate.toExponential(1).replace('e', ' × 10^').replace('+', ''));

const styles = StyleSheet.create({
  list: { padding: space.large, paddingLeft: gutter.width / 2, gap: space.large, maxWidth: 760 },
  part: { gap: space.small },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.medium },
  field: { flexGrow: 1, flexBasis: 150 },
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
});
