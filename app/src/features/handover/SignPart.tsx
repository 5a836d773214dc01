import { signOffRoles, type SignOff } from '@cordel/core';
import { fingerprintWords } from '@cordel/core/fingerprint';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { router } from 'expo-router';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { v7 } from 'uuid';
import { answerOf, api, needsServer } from '../../data/api';
import { correctedNow } from '../../data/clock';
import { getPreferences } from '../../data/preferences';
import { download, type Told } from '../../shell/download';
import { places } from '../../shell/places';
import { ToldWords } from '../../shell/ToldWords';
import { engine } from '../../sync/here';
import { useEntries } from '../../sync/react';
import { Action } from '../../ui/Action';
import { Choice, TextBox } from '../../ui/Field';
import { QrCode } from '../../ui/QrCode';
import { useCordelTheme } from '../../ui/theme';
import { dayAndTime } from '../../ui/times';
import { gutter, space, stroke } from '../../ui/tokens';
import { Trouble } from '../../ui/Trouble';
import { Type } from '../../ui/Type';
import { PickScope } from './PickScope';
import { decisionWords } from './SignedLine';
import type { HandoverGiven } from './useBooks';

const roleWords = { owner: 'Owner', inspector: 'Inspector', crew: 'Crew' } as const;

/** Signing: the record is frozen as it is, and its fingerprint goes on record. */
export function SignPart({ definition, books, closureId }: HandoverGiven) {
  const { id } = definition.project;
  const shown = books.filter(({ closure }) => closureId === undefined || closure.id === closureId);
  const against = shown.reduce(
    (sum, { ready }) => sum + ready.filter(({ stands }) => stands === 'against').length,
    0,
  );
  const waiting = useEntries().filter((entry) => entry.projectId === id).length;
  const client = useQueryClient();
  const signed = useQuery({
    queryKey: ['sign-offs', id],
    queryFn: () => answerOf(api.projects[':projectId']['sign-offs'].$get({ param: { projectId: id } })),
  });
  const [name, setName] = useState('');
  const [role, setRole] = useState<(typeof signOffRoles)[number]>('owner');
  const [decision, setDecision] = useState<SignOff['body']['decision']>('accepted');
  const [note, setNote] = useState('');
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  // Kept until it is answered: sent once more it is the same.
  const [signingId, setSigningId] = useState(() => v7());
  const sign = async () => {
    setBusy(true);
    setTrouble(null);
    try {
      await needsServer(
        answerOf(
          api.projects[':projectId']['sign-offs'].$post({
            param: { projectId: id },
            json: {
              id: signingId,
              madeAt: new Date(correctedNow()).toISOString(),
              by: getPreferences().person.trim() || null,
              closureId: closureId ?? null,
              name,
              role,
              decision,
              note,
            },
          }),
        ),
      );
      setSigningId(v7());
      setNote('');
      await client.invalidateQueries({ queryKey: ['sign-offs', id] });
      void engine().pull.run(id);
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setBusy(false);
  };
  const list = (signed.data?.signOffs ?? []).filter(
    ({ subject }) => closureId === undefined || (subject.on === 'closure' && subject.closureId === closureId),
  );
  return (
    <ScrollView contentContainerStyle={styles.list}>
      <PickScope definition={definition} books={books} closureId={closureId} />
      <Type look="heading" tone={against > 0 ? 'accent' : 'ink'}>
        {against === 0
          ? 'Nothing stands against acceptance.'
          : against === 1
            ? '1 thing stands against acceptance.'
            : `${against} things stand against acceptance.`}
      </Type>
      <View role="group" aria-label="Sign" style={styles.part}>
        <TextBox bench label="Who signs" value={name} onChangeText={setName} />
        <Choice
          bench
          label="As"
          options={signOffRoles.map((value) => ({ value, label: roleWords[value] }))}
          value={role}
          onChange={setRole}
        />
        <Choice
          bench
          label="Decision"
          options={[
            { value: 'accepted', label: 'Accepted' },
            { value: 'accepted-with-remarks', label: 'Accepted with remarks' },
            { value: 'sent-back', label: 'Sent back' },
          ]}
          value={decision}
          onChange={setDecision}
        />
        <TextBox bench label="Remarks" value={note} onChangeText={setNote} />
        {waiting > 0 ? (
          <Trouble
            text={`${waiting === 1 ? '1 record is' : `${waiting} records are`} only on this device yet. Send them first, or the signed record lacks them.`}
          />
        ) : null}
        {trouble ? <Trouble text={trouble} /> : null}
        <Action
          bench
          kind="now"
          label={busy ? 'Freezing the record …' : 'Sign the record as it is now'}
          detail="What is recorded afterwards stands as later"
          disabled={busy || waiting > 0 || name.trim() === ''}
          onPress={() => void sign()}
        />
      </View>
      {list.map((one) => (
        <Signed key={one.id} projectId={id} signOff={one} given={{ definition, books, closureId }} />
      ))}
      <Action label="Check a record against its fingerprint" onPress={() => router.navigate(places.verify)} />
    </ScrollView>
  );
}

function Signed({
  projectId,
  signOff,
  given: { definition, books },
}: {
  projectId: string;
  signOff: SignOff;
  given: HandoverGiven;
}) {
  const { palette } = useCordelTheme();
  const [told, setTold] = useState<Told | null>(null);
  const { body, subject, madeAt } = signOff;
  const of =
    subject.on === 'project'
      ? definition.project.name
      : (books.find(({ closure }) => closure.id === subject.closureId)?.site.name ??
        'A closure that is gone');
  return (
    <View
      role="group"
      aria-label={`Signed: ${of}`}
      style={[styles.card, { borderColor: palette.ink, backgroundColor: palette.sheet }]}
    >
      <View style={styles.words}>
        <Type look="heading" role="heading" aria-level={2}>
          {of}: {decisionWords[body.decision]}
        </Type>
        <Type>
          {body.name} ({roleWords[body.role].toLowerCase()}),{' '}
          {dayAndTime(madeAt, definition.project.timeZone)}
          {body.note ? `: ${body.note}` : ''}
        </Type>
        <Type look="strong">{fingerprintWords(body.sha256)}</Type>
        <Type look="small" tone="soft">
          SHA-256 {body.sha256}
        </Type>
        <Action
          icon="download"
          label="The signed record (JSON)"
          onPress={() =>
            void download(`/api/projects/${projectId}/sign-offs/${signOff.id}/record.json`, null).then(
              setTold,
            )
          }
        />
        <ToldWords told={told} />
      </View>
      <QrCode
        text={`${window.location.origin}/verify?sha256=${body.sha256}`}
        spoken="QR code of the fingerprint, leads to the page that checks it"
        side={132}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 860 },
  part: { gap: space.medium },
  card: {
    borderWidth: stroke.rule,
    padding: space.medium,
    gap: space.medium,
    flexDirection: 'row',
    flexWrap: 'wrap',
  },
  words: { flex: 1, minWidth: 220, gap: space.small },
});
