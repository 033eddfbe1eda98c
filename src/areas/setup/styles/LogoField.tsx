'use client';

import { useState } from 'react';
import { type UseFormReturn, useWatch } from 'react-hook-form';
import type { DocumentStyle } from '@/core/documents/style';
import { TextButton } from '@/ui/TextButton';

const LARGEST_SIDE = 600;

/** Any picture the browser can read, as an opaque JPEG that is no larger than a letterhead needs. */
async function asJpeg(file: File): Promise<string> {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, LARGEST_SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  const ink = canvas.getContext('2d');
  if (ink === null) throw new Error('no canvas');
  // Paper white below what is see-through.
  ink.fillStyle = '#ffffff';
  ink.fillRect(0, 0, canvas.width, canvas.height);
  ink.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return canvas.toDataURL('image/jpeg', 0.88);
}

/** The logo of a style: chosen as a file, kept as a small JPEG. */
export function LogoField({
  form,
  error,
}: {
  readonly form: UseFormReturn<DocumentStyle>;
  readonly error: string | undefined;
}) {
  const logo = useWatch({ control: form.control, name: 'logo' });
  const [fault, setFault] = useState('');
  const take = async (file: File | undefined) => {
    if (file === undefined) return;
    try {
      form.setValue('logo', await asJpeg(file), { shouldDirty: true });
      setFault('');
    } catch {
      setFault(`“${file.name}” is not a picture that this browser can read. Choose a PNG or JPEG.`);
    }
  };
  return (
    <div className="mb-2">
      <label className="block text-soft text-sm">
        Logo
        <input
          type="file"
          accept="image/*"
          className="block text-ink"
          onChange={(event) => void take(event.target.files?.[0])}
        />
      </label>
      {logo !== '' && (
        <span className="flex items-center gap-3 pt-1">
          {/* biome-ignore lint/performance/noImgElement: a data address needs no loader */}
          <img src={logo} alt="Logo" className="max-h-12 max-w-[140px] border border-rule" />
          <TextButton onClick={() => form.setValue('logo', '', { shouldDirty: true })}>remove it</TextButton>
        </span>
      )}
      <p className="min-h-[18px] text-brick text-sm">{fault || error ? `▲ ${fault || error}` : ''}</p>
    </div>
  );
}
