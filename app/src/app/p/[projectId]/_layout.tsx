import { useQueryClient } from '@tanstack/react-query';
import { Slot, useLocalSearchParams } from 'expo-router';
import { useEffect } from 'react';
import { takeAlong } from '../../../data/along';
import { whenQuiet } from '../../../shell/whenQuiet';

/** How long the screen that was asked for, and after it every tap, has the device to itself. ms */
const restMs = 2000;

/** Every screen of a project. What is opened is along by itself: the rest of it is brought to this device meanwhile. */
export default function ProjectLayout() {
  const { projectId } = useLocalSearchParams<{ projectId: string }>();
  const client = useQueryClient();
  useEffect(() => {
    // With no network it is along already, or not to be had.
    return whenQuiet(() => void takeAlong(client, projectId).catch(() => undefined), restMs);
  }, [client, projectId]);
  return <Slot />;
}
