import { toast } from 'sonner';
import { saveFile } from '../shell/saveFile';

/** Makes a PDF and hands it to the browser to save; what kept it from being made is told. */
export async function savePdf(name: string, make: () => Promise<Uint8Array>): Promise<void> {
  try {
    saveFile(name, await make(), 'application/pdf');
  } catch (error) {
    toast.error(`The PDF could not be made: ${(error as Error).message}`);
  }
}
