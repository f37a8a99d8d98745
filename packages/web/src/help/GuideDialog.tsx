import { Button, Dialog, DialogActions, DialogTitle, List, ListItemButton, Table, TableBody, TableCell, TableHead, TableRow } from '@mui/material';
import { styled } from '@mui/material/styles';
import { useRef, useState } from 'react';
import Markdown, { type Components } from 'react-markdown';
import remarkGfm from 'remark-gfm';
import { Field } from '../kit/Field.tsx';
import { Tool } from '../kit/Tool.tsx';
import { TwoPanes } from '../kit/TwoPanes.ts';
import { stages } from '../ui/stages.ts';
import { type Chapter, type DocumentFile, documents, search } from './chapters.ts';
import { Keys } from './Keys.tsx';
import { chapters } from './texts.ts';

const Page = styled('article')({
  overflow: 'auto',
  paddingRight: 10,
  fontSize: 14,
  lineHeight: 1.5,
  '& :is(p, ul, ol, pre)': { margin: '8px 0' },
  '& :is(h2, h3, h4)': { fontSize: 15, marginTop: 14 },
  '& pre': { overflow: 'auto' },
  '& code': { fontFamily: 'var(--mono)', fontSize: 12.5 },
});

const files = Object.keys(documents) as DocumentFile[];
/** What the keys are called among the chapters. */
const keysFile = 'keys';

/** The chapter with what stands below it. */
const withParts = (first: Chapter): Chapter[] => {
  const at = chapters.indexOf(first);
  const end = chapters.findIndex((c, i) => i > at && (c.file !== first.file || c.level <= first.level));
  return chapters.slice(at, end < 0 ? undefined : end);
};

/** What the guide opens at beside a stage; null: the keys. */
const about = (stage: string | null): Chapter | null => {
  const title = stages.find((s) => s.path === stage)?.title;
  return chapters.find((c) => c.file === 'user-guide.md' && c.title === title) ?? null;
};

interface Props {
  /** The stage in view. */
  stage: string | null;
  onTour?(): void;
  onClose(): void;
}

/** The guide, opened at what is in view, with its contents and a search; keys stand there too. */
export default function GuideDialog({ stage, onTour, onClose }: Props) {
  const [chosen, setChosen] = useState<Chapter | typeof keysFile>(() => about(stage) ?? keysFile);
  const [asked, setAsked] = useState('');
  const page = useRef<HTMLElement>(null);
  const show = (next: Chapter | typeof keysFile): void => {
    setChosen(next);
    page.current?.scrollTo(0, 0);
  };
  const found = search(chapters, asked);
  const components: Components = {
    a: ({ href, children }) => {
      const target = files.find((f) => href === f);
      return target ? (
        <Tool bare onClick={() => show(chapters.find((c) => c.file === target)!)}>
          {children}
        </Tool>
      ) : (
        <i>{children}</i>
      );
    },
    table: ({ children }) => <Table size="small">{children}</Table>,
    thead: ({ children }) => <TableHead>{children}</TableHead>,
    tbody: ({ children }) => <TableBody>{children}</TableBody>,
    tr: ({ children }) => <TableRow>{children}</TableRow>,
    th: ({ children }) => <TableCell>{children}</TableCell>,
    td: ({ children }) => <TableCell>{children}</TableCell>,
  };
  const item = (key: string, label: string, target: Chapter | typeof keysFile, deep = 0) => (
    <ListItemButton key={key} selected={target === chosen} sx={{ pl: 1 + deep }} onClick={() => show(target)}>
      {label}
    </ListItemButton>
  );
  return (
    <Dialog open onClose={onClose} maxWidth="lg" fullWidth aria-labelledby="guide-title">
      <DialogTitle id="guide-title">Guide</DialogTitle>
      <TwoPanes>
        <nav aria-label="Contents" className="pane-list">
          <Field
            look="search"
            type="search"
            label="Search the guide"
            placeholder="search the guide"
            width="100%"
            autoFocus
            value={asked}
            onChange={setAsked}
          />
          {asked.trim() ? (
            <List dense aria-label="Found">
              {found.map(({ chapter, piece }, i) => (
                <ListItemButton key={i} selected={chapter === chosen} sx={{ display: 'block' }} onClick={() => show(chapter)}>
                  <b>{chapter.title}</b> <span className="quiet">{documents[chapter.file as DocumentFile]}</span>
                  <div className="quiet" style={{ fontSize: 12 }}>
                    {piece}
                  </div>
                </ListItemButton>
              ))}
              {!found.length && <p className="quiet">Nothing in the guide has these words.</p>}
            </List>
          ) : (
            <List dense>
              {item(keysFile, 'Keys and conventions', keysFile)}
              {files.flatMap((file) =>
                chapters
                  .filter((c) => c.file === file && c.level <= 2)
                  .map((c, i) => item(`${file} ${i}`, c.level === 1 ? documents[file] : c.title, c, c.level === 1 ? 0 : 1.5)),
              )}
            </List>
          )}
        </nav>
        <Page ref={page} tabIndex={0} aria-label={chosen === keysFile ? 'Keys and conventions' : chosen.title}>
          {chosen === keysFile ? (
            <Keys />
          ) : (
            withParts(chosen).map((c, i) => (
              <section key={i}>
                <h2>{c.title}</h2>
                <Markdown remarkPlugins={[remarkGfm]} components={components}>
                  {c.text}
                </Markdown>
              </section>
            ))
          )}
        </Page>
      </TwoPanes>
      <DialogActions>
        {onTour && <Button onClick={onTour}>Take the tour</Button>}
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
