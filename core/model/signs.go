package model

// SignName is what a sign is called. The list is closed: whoever judges asks
// for one of these, and a test holds that each is asked for, and that every
// language where it can be met tells it.
type SignName string

// The signs.
const (
	SignEntry       SignName = "mounts"               // puts an interface on a page
	SignListens     SignName = "listens"              // starts to answer on a port
	SignApplication SignName = "makes an application" // that a server is handed, at the top of the file
	SignRoutes      SignName = "declares routes"      // ties addresses to what answers them
	SignHandles     SignName = "handles requests"     // answers a request over HTTP
	SignHTTP        SignName = "calls over HTTP"      // sends requests itself
	SignSQL         SignName = "runs SQL"             // holds a statement to a store
	SignDraws       SignName = "draws"                // draws for a person
	SignPicture     SignName = "draws svg"            // of that, part of a picture
	SignComposes    SignName = "composes"             // draws by other components
	SignKeepsState  SignName = "keeps state"          // keeps state for what is drawn
	SignStore       SignName = "makes a store"        // makes a store of such state
	SignReExports   SignName = "re-exports"           // hands on what others export
	SignTest        SignName = "test"                 // declares tests
	SignDebug       SignName = "debug"                // holds a call made to look for a fault
)

// Signs lists every sign with what it means.
var Signs = map[SignName]string{
	SignEntry: "it puts an interface on a page", SignListens: "it starts to answer on a port",
	SignApplication: "it makes the application that a server is handed",
	SignRoutes:      "it ties addresses to what answers them",
	SignHandles:     "it answers a request over HTTP", SignHTTP: "it sends requests over HTTP", SignSQL: "it holds a statement to a store",
	SignDraws: "it draws for a person", SignPicture: "it draws a part of a picture", SignComposes: "it draws by other components",
	SignKeepsState: "it keeps state for what is drawn", SignStore: "it makes a store of state",
	SignReExports: "it hands on what others export",
	SignTest:      "it declares tests", SignDebug: "it holds a call made to look for a fault",
}
