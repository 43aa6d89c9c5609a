import { zodResolver } from '@hookform/resolvers/zod';
import type { ReactNode } from 'react';
import {
  useController,
  useForm,
  type Control,
  type DefaultValues,
  type FieldPath,
  type FieldPathByValue,
  type FieldValues,
  type PathValue,
  type UseFormReturn,
} from 'react-hook-form';
import type { z } from 'zod';
import { Choice, Field, type ChoiceProps, type FieldProps } from './Field';

/**
 * A form of two fields and more: what is typed stays as it is typed until it is sent; the schema reads it then, tells each
 * field what is wrong with it, and the first wrong one is gone to.
 */
export const useFilled = <Typed extends FieldValues, Read>(
  schema: z.ZodType<Read, Typed>,
  typed: DefaultValues<Typed>,
): UseFormReturn<Typed, unknown, Read> =>
  useForm<Typed, unknown, Read>({ resolver: zodResolver(schema), defaultValues: typed });

interface FormProps<Typed extends FieldValues, Read> {
  form: UseFormReturn<Typed, unknown, Read>;
  onRead: (read: Read) => void | Promise<void>;
  className: string | undefined;
  children: ReactNode;
}

export const Form = <Typed extends FieldValues, Read>({ form, onRead, ...rest }: FormProps<Typed, Read>) => (
  <form {...rest} noValidate onSubmit={(event) => void form.handleSubmit(onRead)(event)} />
);

/** A field of text. */
export function TextIn<Typed extends FieldValues, Read>({
  of: control,
  name,
  ...rest
}: {
  of: Control<Typed, unknown, Read>;
  name: FieldPathByValue<Typed, string>;
} & Omit<FieldProps, 'name' | 'value' | 'onValue' | 'error'>) {
  const {
    field: { ref, value, onBlur, onChange },
    fieldState: { error },
  } = useController({ control, name });
  return <Field {...rest} {...{ ref, value, onBlur }} error={error?.message} onValue={onChange} />;
}

/** One of a few. */
export function ChoiceIn<Typed extends FieldValues, Read, Name extends FieldPath<Typed>>({
  of: control,
  name,
  ...rest
}: {
  of: Control<Typed, unknown, Read>;
  name: Name;
} & Omit<ChoiceProps<PathValue<Typed, Name> & string>, 'value' | 'onValue'>) {
  const { field } = useController({ control, name });
  return <Choice {...rest} value={field.value} onValue={field.onChange} />;
}
