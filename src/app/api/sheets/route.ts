import { checkSheet } from '@/core/rig';
import { answer, problem } from '@/server/answers';
import { database } from '@/server/database';
import { listSheets, putSheet, putSheetSchema, unreadSheets } from '@/server/sheets';

export const dynamic = 'force-dynamic';

export const GET = (request: Request) =>
  answer(request, null, async () => {
    const [sheets, unread] = [await listSheets(database()), await unreadSheets(database())];
    return Response.json({ sheets, unread });
  });

export const PUT = (request: Request) =>
  answer(request, putSheetSchema, async ({ sheet, base }) => {
    const read = checkSheet(sheet);
    if (!read.ok)
      return problem(422, 'This sheet cannot stand in the locker.', { problems: read.problems });
    const put = await putSheet(database(), read.value, base);
    if (put.is === 'behind')
      return problem(409, 'Somebody else has changed this sheet in the locker.', {
        detail: `Theirs has: ${put.differences.join(', ')}. Take theirs, or put yours over it.`,
        version: put.version,
      });
    return Response.json({ sheets: await listSheets(database()) });
  });
