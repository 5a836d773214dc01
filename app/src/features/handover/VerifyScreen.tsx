import { fingerprintWords, matchesFingerprint } from '@cordel/core/fingerprint';
import { useQuery } from '@tanstack/react-query';
import canonicalize from 'canonicalize';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { answerOf, api } from '../../data/api';
import { Screen } from '../../shell/frame/Screen';
import { places } from '../../shell/places';
import { TextBox } from '../../ui/Field';
import { FilePick } from '../../ui/FilePick';
import { dayAndTime } from '../../ui/times';
import { gutter, space } from '../../ui/tokens';
import { Trouble } from '../../ui/Trouble';
import { Type } from '../../ui/Type';
import { decisionWords } from './SignedLine';
import type { SignOff } from '@cordel/core';

/** Checks a record that somebody has as a file against a fingerprint, on this device; and asks the server whose fingerprint it is. */
export function VerifyScreen({ given }: { given: string }) {
  const [wanted, setWanted] = useState(given);
  const [file, setFile] = useState<{ name: string; sha256: string } | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const digits = wanted.replace(/\s/g, '').toLowerCase();
  const asked = /^[0-9a-f]{64}$/.test(digits) ? digits : (file?.sha256 ?? null);
  const read = async (picked: File) => {
    setTrouble(null);
    setFile(null);
    try {
      const text = canonicalize(JSON.parse(await picked.text()));
      const hash = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(text));
      const sha256 = [...new Uint8Array(hash)].map((byte) => byte.toString(16).padStart(2, '0')).join('');
      setFile({ name: picked.name, sha256 });
    } catch {
      setTrouble(`${picked.name} is not a JSON file, or only a part of one. Pick the record as JSON.`);
    }
  };
  const same = file && wanted.trim() !== '' ? matchesFingerprint(file.sha256, wanted) : null;
  return (
    <Screen title="Check a record" up={{ href: places.shelf, name: 'the shelf' }}>
      <ScrollView contentContainerStyle={styles.list}>
        <TextBox
          bench
          label="Fingerprint"
          value={wanted}
          onChangeText={setWanted}
          hint="The six words of page one, or all 64 digits. A scanned code fills it in."
        />
        <FilePick
          bench
          label="Pick the record (JSON)"
          what="The record as a file"
          accept=".json,application/json"
          onFile={(one) => void read(one)}
        />
        {trouble ? <Trouble text={trouble} /> : null}
        {file ? (
          <View role="status" style={styles.part}>
            <Type look="title" tone={same === false ? 'accent' : 'ink'}>
              {same === null
                ? 'Its fingerprint'
                : same
                  ? 'It is the record of this fingerprint'
                  : 'It is another record than the one of this fingerprint'}
            </Type>
            <Type look="strong">{fingerprintWords(file.sha256)}</Type>
            <Type look="small">
              {file.name}: SHA-256 {file.sha256}
            </Type>
          </View>
        ) : null}
        {asked ? <Known sha256={asked} /> : null}
        <Type look="small" tone="soft">
          The file stays on this device. It is written in the one form of RFC 8785 and hashed with SHA-256, as
          npm run verify does.
        </Type>
      </ScrollView>
    </Screen>
  );
}

function Known({ sha256 }: { sha256: string }) {
  const { data, error } = useQuery({
    queryKey: ['signed', sha256],
    queryFn: () => answerOf(api['sign-offs'][':sha256'].$get({ param: { sha256 } })),
    retry: false,
  });
  if (error)
    return <Type look="small">{`Whose it is can only be asked with a network. ${error.message}`}</Type>;
  if (!data) return null;
  return (
    <View style={styles.part} role="group" aria-label="On this server">
      {data.signed.length === 0 ? (
        <Type>Nothing with this fingerprint was signed on this server.</Type>
      ) : (
        data.signed.map((one, index) => (
          <Type key={index}>
            {`${[one.closure, one.project].filter(Boolean).join(', ')}: ${decisionWords[one.decision as SignOff['body']['decision']]}, signed by ${one.name} (${one.role}), ${dayAndTime(one.at, null)}`}
          </Type>
        ))
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 760 },
  part: { gap: space.small },
});
