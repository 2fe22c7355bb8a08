import { NextResponse } from 'next/server';
import { pageFiles } from '@/server/page-files';

export const dynamic = 'force-dynamic';

/**
 * What a browser keeps of this build, so that every place opens while the server is away. It is asked for with
 * every place that is opened, and changes with the build alone.
 */
export const GET = async () =>
  NextResponse.json(await pageFiles(), { headers: { 'cache-control': 'private, max-age=300' } });
