package csharp

import "jantel/core/syntax/typed"

// dialect is how C# writes what the walker of typed languages reads.
var dialect = &typed.Dialect{
	Base: "base", Inferred: typed.Names("var dynamic"), Bracketed: true, Statements: true, Holes: holes,
	Modifiers: typed.Names("public protected private internal static readonly abstract sealed virtual override async extern unsafe " +
		"volatile partial required new const file global event implicit explicit operator fixed ref"),
	Types: typed.Names("class interface enum record struct"),
	Lists: typed.Names("List IList IEnumerable ICollection IReadOnlyList IReadOnlyCollection HashSet ISet SortedSet Queue Stack LinkedList " +
		"IQueryable DbSet IAsyncEnumerable ConcurrentBag ConcurrentQueue ObservableCollection ImmutableList ImmutableArray Collection Span " +
		"ReadOnlySpan Memory IGrouping IOrderedEnumerable IEnumerator"),
	Maps: typed.Names("Dictionary IDictionary IReadOnlyDictionary ConcurrentDictionary SortedDictionary SortedList ImmutableDictionary"),
	Same: typed.Names("Task ValueTask Lazy Nullable Func IOptions IOptionsSnapshot IOptionsMonitor WeakReference AsyncLocal ThreadLocal"),
	Over: typed.Names("Where Select SelectMany Any All First FirstOrDefault Single SingleOrDefault Last LastOrDefault OrderBy " +
		"OrderByDescending ThenBy GroupBy ForEach Count Sum Max Min Average ToDictionary Find FindAll Exists RemoveAll"),
	Plain: typed.Names("null true false int long double float bool char byte short void string object " +
		"decimal uint ulong ushort sbyte return nint"),
}
