import { answer } from '@/app/server/answer'
import { openApiDocument } from '../openApiDocument'

export const GET = answer('openApi', async () => openApiDocument())
