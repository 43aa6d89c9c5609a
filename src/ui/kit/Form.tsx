import { zodResolver } from '@hookform/resolvers/zod';
import { useRef, type ReactNode } from 'react';
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
import {
  Choice,
  Field,
  Picks,
  Select,
  type ChoiceProps,
  type FieldProps,
  type PicksProps,
  type SelectProps,
} from './Field';

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

export function Form<Typed extends FieldValues, Read>({ form, onRead, ...rest }: FormProps<Typed, Read>) {
  const element = useRef<HTMLFormElement>(null);
  // On a phone what is wrong may stand far above the button.
  const goToWrong = () =>
    requestAnimationFrame(() =>
      element.current?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus(),
    );
  return (
    <form
      {...rest}
      ref={element}
      noValidate
      onSubmit={(event) => void form.handleSubmit(onRead, goToWrong)(event)}
    />
  );
}

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

/** One of many, in a list that opens. */
export function SelectIn<Typed extends FieldValues, Read, Name extends FieldPath<Typed>>({
  of: control,
  name,
  ...rest
}: {
  of: Control<Typed, unknown, Read>;
  name: Name;
} & Omit<SelectProps<PathValue<Typed, Name> & string>, 'name' | 'value' | 'onValue'>) {
  const { field } = useController({ control, name });
  return <Select {...rest} value={field.value} onValue={field.onChange} />;
}

/** Any of a few. */
export function PicksIn<
  Typed extends FieldValues,
  Read,
  Name extends FieldPath<Typed>,
  Value extends string,
>({
  of: control,
  name,
  ...rest
}: {
  of: Control<Typed, unknown, Read>;
  name: Name & FieldPathByValue<Typed, Value[]>;
} & Omit<PicksProps<Value>, 'values' | 'onValues'>) {
  const { field } = useController({ control, name });
  return <Picks {...rest} values={field.value} onValues={field.onChange} />;
}
