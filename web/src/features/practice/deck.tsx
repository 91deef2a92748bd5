import { useSyncExternalStore } from "react";
import { api, take, type Schemas } from "../../app/api";

type Card = Schemas["PracticeCard"];
type Answer = Schemas["CardAnswer"];

// Dealt cards and answers that the server has not had yet stay on the device: cards need no network.
const DECK = "practice cards";
const ANSWERS = "practice answers";
const listeners = new Set<() => void>();

const read = <T,>(key: string): T[] => {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "[]") as T[];
  } catch {
    return [];
  }
};
const write = <T,>(key: string, value: T[]) => {
  localStorage.setItem(key, JSON.stringify(value));
  listeners.forEach((l) => l());
};

/** Keeps an answer, and sends what waits as soon as it can. */
export function keepAnswer(answer: Answer) {
  write(ANSWERS, [...read<Answer>(ANSWERS), answer]);
  void sendAnswers();
}

/** Sends the answers that wait; whether nothing waits any more. Each is told once, however often it is sent. */
export async function sendAnswers(): Promise<boolean> {
  const waiting = read<Answer>(ANSWERS);
  if (waiting.length === 0) return true;
  try {
    await take(api.POST("/api/practice/cards", { body: { answers: waiting } }));
  } catch {
    return false;
  }
  // What was answered meanwhile waits for the next time.
  write(ANSWERS, read<Answer>(ANSWERS).slice(waiting.length));
  return true;
}

/** The cards to play: the server's, or where it is silent those that were dealt last and not answered since. */
export async function deal(): Promise<Card[]> {
  try {
    await sendAnswers();
    const cards = await take(api.GET("/api/practice/cards"));
    write(DECK, cards);
    return cards;
  } catch (error) {
    const answered = new Set(read<Answer>(ANSWERS).map((a) => a.cardId));
    const kept = read<Card>(DECK).filter((c) => !answered.has(c.id));
    if (kept.length === 0) throw error;
    return kept;
  }
}

const waitingCount = () => read<Answer>(ANSWERS).length;

/** How many answers wait for the network. */
export function CardsWaiting() {
  const waiting = useSyncExternalStore(
    (changed) => {
      listeners.add(changed);
      return () => listeners.delete(changed);
    },
    waitingCount,
    waitingCount,
  );
  if (waiting === 0) return null;
  return (
    <p role="status" className="m-0 mb-2 text-[17px]">
      {waiting === 1 ? "1 answer waits" : `${waiting} answers wait`} on this device for the server.
    </p>
  );
}
