import { NextResponse } from 'next/server';
import { pageFiles } from '@/server/page-files';

export const dynamic = 'force-dynamic';

/** What a browser keeps of this build, so that every place opens while the server is away. */
export const GET = async () => NextResponse.json(await pageFiles());
