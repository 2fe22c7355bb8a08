import { createContext, type ReactNode, useContext, useEffect, useState } from 'react';
import { type StoreApi, useStore } from 'zustand';
import { atFirstHand } from '../look/first-hand';
import { fetchSoon } from '../look/later';
import { useDocument } from '../store/use-rig';
import { type BookState, openBook } from './book-store';

const BookContext = createContext<StoreApi<BookState> | null>(null);

/** Opens what is written down beside the rig, for all parts of Show. */
export function WithBook({ children }: { children: ReactNode }) {
  const { id } = useDocument();
  const [store, setStore] = useState<StoreApi<BookState> | null>(null);
  useEffect(() => {
    const opened = openBook(id);
    setStore(opened.store);
    const off = atFirstHand(() => fetchSoon('logbook'));
    return () => {
      off();
      opened.close();
    };
  }, [id]);
  return store ? (
    <BookContext.Provider value={store}>{children}</BookContext.Provider>
  ) : (
    <p className="empty common-gap-2">Opening the logbook …</p>
  );
}

function useBookStore(): StoreApi<BookState> {
  const store = useContext(BookContext);
  if (!store) throw new Error('no logbook is open here');
  return store;
}

export const useBook = <T,>(slice: (state: BookState) => T): T => useStore(useBookStore(), slice);
