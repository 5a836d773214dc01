import { router } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { ProblemError } from '../../data/api';
import { bringTogether, Overtaken } from '../../data/bothTogether';
import { Action } from '../../ui/Action';
import { space } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { places } from '../places';

interface OvertakenNoticeProps {
  /** Why the last try was not stored. */
  error: Error;
  /** "Show the newer ones" */
  show?: string;
  detail?: string;
  /** Shows what is stored now. */
  onNewer: () => void;
  /** Shows what both together are. */
  onTogether?: () => void;
}

/** Why a save was refused; where somebody else saved first, the ways out of it. */
export function OvertakenNotice({
  error,
  show = 'Show the newer one',
  detail,
  onNewer,
  onTogether = onNewer,
}: OvertakenNoticeProps) {
  const [failed, setFailed] = useState<string | null>(null);
  const overtaken = error instanceof ProblemError && error.status === 409;
  const both = async (told: Overtaken) => {
    try {
      const undecided = await bringTogether(told);
      if (undecided) router.navigate(places.decide(undecided));
      else onTogether();
    } catch (trouble) {
      setFailed((trouble as Error).message);
    }
  };
  return (
    <View role="alert" style={styles.notice}>
      <Type tone="accent">{failed ?? error.message}</Type>
      {overtaken ? (
        <View style={styles.keys}>
          {error instanceof Overtaken ? (
            <Action label="Bring both together" onPress={() => void both(error)} style={styles.grow} />
          ) : null}
          <Action label={show} {...(detail ? { detail } : {})} onPress={onNewer} style={styles.grow} />
        </View>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  notice: { gap: space.tight },
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  grow: { flexGrow: 1 },
});
