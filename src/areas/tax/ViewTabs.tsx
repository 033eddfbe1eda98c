interface ViewTabsProps<View extends string> {
  readonly views: readonly { readonly view: View; readonly words: string }[];
  readonly view: View;
  readonly onPick: (view: View) => void;
}

/** Ways to look at the same figures; one is shown. */
export function ViewTabs<View extends string>({ views, view, onPick }: ViewTabsProps<View>) {
  return (
    <nav aria-label="Views of the return" className="mb-3 flex flex-wrap gap-x-4 gap-y-1">
      {views.map((one) => (
        <button
          key={one.view}
          type="button"
          aria-pressed={one.view === view}
          className={`cursor-pointer underline-offset-4 ${one.view === view ? 'font-semibold underline decoration-2 decoration-rust' : 'underline decoration-rule'}`}
          onClick={() => onPick(one.view)}
        >
          {one.words}
        </button>
      ))}
    </nav>
  );
}
