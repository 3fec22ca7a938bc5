package java

import "jantel/core/syntax/typed"

// dialect is how Java writes what the walker of typed languages reads.
var dialect = &typed.Dialect{
	Base: "super", Inferred: typed.Names("var"),
	Counted:   true,
	Modifiers: typed.Names("public protected private static final abstract native synchronized transient volatile strictfp default sealed"),
	Types:     typed.Names("class interface enum record"),
	Lists: typed.Names("List ArrayList LinkedList Set HashSet TreeSet LinkedHashSet SortedSet NavigableSet Collection Iterable Iterator " +
		"Queue Deque ArrayDeque PriorityQueue Stream CopyOnWriteArrayList Vector Stack ListIterator Enumeration"),
	Maps: typed.Names("Map HashMap TreeMap LinkedHashMap ConcurrentHashMap ConcurrentMap SortedMap NavigableMap EnumMap WeakHashMap"),
	Same: typed.Names("Optional Supplier Callable Future CompletableFuture CompletionStage AtomicReference Provider " +
		"WeakReference ThreadLocal"),
	Over: typed.Names("forEach map filter flatMap anyMatch allMatch noneMatch mapToInt mapToLong mapToObj sorted peek " +
		"ifPresent orElseGet removeIf"),
	Plain: typed.Names("null true false int long double float boolean char byte short void return"),
}
