package weave

import (
	"regexp"
	"slices"
	"strings"

	"jantel/core/model"
)

// What types say of the role of a file: what they build upon, and are marked with.

type baseEnd struct {
	ends string
	role model.Role
}

// baseRoles are what types mean that build upon a base, by the end of its name.
var baseRoles = []baseEnd{
	{"TestCase", model.RoleTest}, {"Controller", model.RoleHandler}, {"Resource", model.RoleHandler}, {"Servlet", model.RoleHandler},
	{"Handler", model.RoleHandler}, {"Command", model.RoleHandler}, {"Middleware", model.RoleHandler}, {"Action", model.RoleHandler},
	{"Repository", model.RoleDataAccess}, {"DbContext", model.RoleDataAccess}, {"Dao", model.RoleDataAccess},
	{"VFS", model.RoleDataAccess},
	{"ApplicationRecord", model.RoleModel}, {"ActiveRecord::Base", model.RoleModel},
	{"Entity", model.RoleModel}, {"Exception", model.RoleModel}, {"Error", model.RoleModel},
	{"Migration", model.RoleSchema}, {"Serializer", model.RoleSchema}, {"Form", model.RoleSchema}, {"FormRequest",
		model.RoleSchema}, {"BaseModel", model.RoleSchema}, {"AbstractType", model.RoleSchema}, {"Validator", model.RoleSchema},
	{"Activity", model.RoleView}, {"Fragment", model.RoleView}, {"Widget", model.RoleView}, {"Dialog", model.RoleView},
	{"Window", model.RoleView}, {"Panel", model.RoleView}, {"Pane", model.RoleView}, {"Frame", model.RoleView}, {"View", model.RoleView},
	{"Delegate", model.RoleView}, {"JComponent", model.RoleView}, {"JLabel", model.RoleView}, {"JButton", model.RoleView},
	{"JList", model.RoleView}, {"JTable", model.RoleView}, {"JTree", model.RoleView}, {"JMenu", model.RoleView},
	{"JMenuItem", model.RoleView},
	{"JTextField", model.RoleView}, {"JComboBox", model.RoleView}, {"JToolBar", model.RoleView}, {"UserControl", model.RoleView},
	{"CustomControl", model.RoleView}, {"ContentControl", model.RoleView}, {"TemplatedControl", model.RoleView},
	{"Component", model.RoleView}, {"Renderer", model.RoleView}, {"Icon", model.RoleView},
	{"ItemModel", model.RoleState}, {"TableModel", model.RoleState}, {"ProxyModel", model.RoleState}, {"ViewModel", model.RoleState},
	{"PageModel", model.RoleHandler}, {"Model", model.RoleModel},
	{"Store", model.RoleState}, {"Listener", model.RoleMessage}, {"Subscriber", model.RoleMessage}, {"Job", model.RoleMessage},
	{"Parser", model.RoleFormat}, {"Lexer", model.RoleFormat}, {"Reader", model.RoleFormat}, {"Writer", model.RoleFormat},
	{"Encoder", model.RoleFormat}, {"Decoder", model.RoleFormat}, {"InputStream", model.RoleFormat}, {"OutputStream", model.RoleFormat},
	{"ResourceBundle", model.RoleTranslation}, {"HtmlElement", model.RoleView},
}

// answering are bases of what answers requests, in whatever codebase.
var answering = map[string]bool{"Controller": true, "Servlet": true, "Middleware": true, "PageModel": true}

// wholeBases are bases that mean something where nothing stands before them: a
// version control draws nothing. Those of structures are what languages offer to
// build upon: what can be walked through or counted may be anything, and is not among them.
var wholeBases = map[string]model.Role{
	"Control": model.RoleView,
	"dict":    model.RoleStructure, "list": model.RoleStructure, "set": model.RoleStructure, "UserDict": model.RoleStructure,
	"UserList": model.RoleStructure, "OrderedDict": model.RoleStructure, "MutableMapping": model.RoleStructure,
	"MutableSequence": model.RoleStructure, "MutableSet": model.RoleStructure, "ArrayAccess": model.RoleStructure,
	"ArrayObject": model.RoleStructure, "ArrayIterator": model.RoleStructure, "AbstractList": model.RoleStructure,
	"AbstractMap": model.RoleStructure, "AbstractSet": model.RoleStructure, "AbstractCollection": model.RoleStructure,
	"AbstractQueue": model.RoleStructure, "IList": model.RoleStructure, "IDictionary": model.RoleStructure, "ICollection": model.RoleStructure,
}

// byLastByte are the baseRoles in their order, by the last byte of their ends: each base of
// each type is held against them.
var byLastByte = func() (out [256][]baseEnd) {
	for _, x := range baseRoles {
		last := x.ends[len(x.ends)-1]
		out[last] = append(out[last], x)
	}
	return out
}()

// baseRole is what types mean that build upon a base, and whether its name tells.
func baseRole(base, simple string) (ends string, role model.Role, ok bool) {
	if r := wholeBases[simple]; r != "" {
		return simple, r, true
	}
	if simple == "" {
		return "", "", false
	}
	for _, x := range byLastByte[simple[len(simple)-1]] {
		if strings.HasSuffix(simple, x.ends) || base == x.ends {
			return x.ends, x.role, true
		}
	}
	if from, _, ok := strings.Cut(base, "."); ok && toolkits[from] && !undrawn.MatchString(simple) {
		return simple, model.RoleView, true
	}
	return "", "", false
}

// undrawn are the types of such a library that nobody sees.
var undrawn = regexp.MustCompile(`Store|Model|Application|^App$`)

// toolkits are what libraries of interfaces are called where their types are built upon:
// all but what keeps rows and starts is drawn.
var toolkits = map[string]bool{"Gtk": true, "gtk": true, "Adw": true, "Handy": true, "wx": true, "QtWidgets": true, "tk": true, "ttk": true,
	"tkinter": true, "Tkinter": true, "QtGui": true, "urwid": true}

// markRoles are what annotations say of a type.
var markRoles = map[string]model.Role{
	"@RestController": model.RoleHandler, "@Controller": model.RoleHandler, "ApiController": model.RoleHandler,
	"@Service":    model.RoleLogic,
	"@Repository": model.RoleDataAccess, "@Entity": model.RoleModel, "@Table": model.RoleModel, "@Component": "",
	"@Configuration":         model.RoleConfig,
	"@SpringBootApplication": model.RoleEntry, "@ControllerAdvice": model.RoleHandler, "@EventListener": model.RoleMessage,
	"@Path": model.RoleHandler, "@WebServlet": model.RoleHandler, "dataclass": model.RoleModel, "@Dao": model.RoleDataAccess,
	"@Composable": model.RoleView, "@HiltViewModel": model.RoleState, "derive": "",
}

// owners are the definitions of a file that classes may lie in: of one that does
// nothing is told but that it helps there. What lies in a namespace alone stands by
// itself. They are gathered where a class lies in anything at all.
type owners struct {
	of    *model.Facts
	named map[string]bool
}

func (o *owners) has(name string) bool {
	if name == "" {
		return false
	}
	if o.named == nil {
		o.named = map[string]bool{}
		for i := range o.of.Definitions {
			switch d := &o.of.Definitions[i]; d.Kind {
			case model.DefClass, model.DefInterface, model.DefType, model.DefEnum, model.DefFunction, model.DefMethod, model.DefComponent:
				o.named[d.Qualified()] = true
			}
		}
	}
	return o.named[name]
}

// lastLine is where the last definition of a file ends.
func lastLine(f *model.Facts) (last int) {
	for i := range f.Definitions {
		last = max(last, f.Definitions[i].EndLine)
	}
	return last
}

// onlyFaults reports whether all classes of a file are such as are raised.
func onlyFaults(f *model.Facts, in *owners) bool {
	for i := range f.Definitions {
		d := &f.Definitions[i]
		switch d.Kind {
		case model.DefClass:
			if in.has(d.Parent) || slices.ContainsFunc(d.Bases, func(b string) bool {
				return strings.HasSuffix(b, "Error") || strings.HasSuffix(b, "Exception")
			}) {
				continue
			}
			return false
		case model.DefFunction, model.DefComponent:
			return false
		}
	}
	return true
}

// builds asks what the types of a file build upon and are marked with.
func (b *ballot) builds(lex *Lexicon, f *model.Facts) {
	in := owners{of: f}
	faults := onlyFaults(f, &in)
	answers := slices.ContainsFunc(f.Imports, ofWebViews)
	for i := range f.Definitions {
		d := &f.Definitions[i]
		if d.Kind != model.DefClass && d.Kind != model.DefInterface || in.has(d.Parent) {
			continue
		}
		for _, m := range d.Marks {
			if r := markRoles[m]; r != "" {
				b.seen(r, 2, "%s is marked %s, line %d", d.Name, m, d.Line)
			}
		}
		for _, base := range d.Bases {
			named := simple(base)
			ends, role, ok := baseRole(base, named)
			switch {
			case !ok || lex.defined[ends] || lex.defined[named]:
			case role == model.RoleHandler && !lex.answered && !answering[ends] && ends != "Command": // what nobody asks from outside
			case !faults && (ends == "Exception" || ends == "Error"): // one that is raised beside what the file is about
			case role == model.RoleTest && 2*(d.EndLine-d.Line) < lastLine(f): // it is tested where it stands
			case role == model.RoleView && answers:
				b.seen(model.RoleHandler, 1.6, "%s is a %s, line %d", d.Name, named, d.Line)
			default:
				b.seen(role, 1.6, "%s is a %s, line %d", d.Name, named, d.Line)
			}
		}
	}
}
