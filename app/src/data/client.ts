import { notifyManager, QueryClient } from '@tanstack/react-query';
import { ProblemError } from './api';

// Without this, what a tap changed is shown one timer tick later than it could be.
notifyManager.setScheduler(queueMicrotask);

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      // Asks even when the browser believes it is offline: the server may be on this very machine.
      networkMode: 'always',
      staleTime: 5000,
      gcTime: Infinity,
      refetchOnReconnect: true,
      retry: (count, error) => !(error instanceof ProblemError) && count < 2,
    },
    mutations: { networkMode: 'always' },
  },
});
