import { colorAt, colorScheme } from '@cordel/core';
import type { StepCheck } from '@cordel/core/prepare';
import { fireEvent, render, screen } from '@testing-library/react';
import { CordelThemeProvider } from '../../ui/theme';
import { CheckPart } from './CheckPart';

const count: StepCheck = { ask: 'How many?', expects: 'count', answer: '12', wrong: 'Count again.' };
const color: StepCheck = {
  ask: 'Which color?',
  expects: 'color',
  answer: 'BL',
  choices: [1, 2, 3, 14].map((position) => colorAt(colorScheme('tia-598-d'), position)),
  wrong: 'Look again.',
};

function ask(check: StepCheck) {
  const answers: unknown[] = [];
  render(
    <CordelThemeProvider>
      <CheckPart check={check} onAnswer={(answer, note) => answers.push([answer, note])} />
    </CordelThemeProvider>,
  );
  return answers;
}
const type = (label: string, text: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value: text } });
const tap = (name: string) => fireEvent.click(screen.getByRole('button', { name }));

test('a right count goes on at once', () => {
  const answers = ask(count);
  type('Counted', ' 12 ');
  tap('That is it');
  expect(answers).toEqual([[{ count: 12 }, undefined]]);
});

test('what is no number is asked for again, and is no answer', () => {
  const answers = ask(count);
  type('Counted', 'a dozen');
  tap('That is it');
  expect(screen.getByText('Give the number that you counted, in digits.')).toBeTruthy();
  expect(answers).toEqual([]);
});

test('a wrong answer does not go on by itself; with a reason it does, as wrong', () => {
  const answers = ask(color);
  tap('OR orange');
  expect(screen.getByText('Look again.')).toBeTruthy();
  expect(answers).toEqual([]);
  const goOn = screen.getByRole('button', { name: 'Go on all the same' });
  fireEvent.click(goOn);
  expect(answers).toEqual([]);
  type('Why it is right to go on all the same', 'the code differs here');
  tap('Go on all the same');
  expect(answers).toEqual([[{ colors: ['OR'] }, 'the code differs here']]);
});

test('it can be answered again', () => {
  const answers = ask(color);
  tap('GR green');
  tap('Answer again');
  tap('BL blue');
  expect(answers).toEqual([[{ colors: ['BL'] }, undefined]]);
});

test('colors with a tracer can be picked, and a number that is no count is asked for by its name', () => {
  const answers = ask({ ...color, answer: 'OR-BK' });
  tap('OR-BK orange with black tracer');
  expect(answers).toEqual([[{ colors: ['OR-BK'] }, undefined]]);
  const numbers = ask({ ...count, field: 'Printed number' });
  type('Printed number', '12');
  tap('That is it');
  expect(numbers).toEqual([[{ count: 12 }, undefined]]);
});
