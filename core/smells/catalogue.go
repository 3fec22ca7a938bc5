package smells

import "jantel/core/model"

// catalogue lists the rules in the order in which they are always shown.
var catalogue = []*Rule{
	{
		Slug: "crowded-folder", Facet: model.Layout, Title: "Crowded folder", Weight: 1.2, find: crowdedFolder,
		Question:   "Does a folder hold more files than a reader can take in?",
		Why:        "Where dozens of files lie side by side, nobody sees which belong together, and each new one is dropped where there is room.",
		Remedy:     "Find the groups by what the files do, and give each a folder of its own.",
		Parameters: []Parameter{{"files", "judged files directly in the folder, tests and assets aside", 40, 30, 25}},
	},
	{
		Slug: "hidden-by-prefix", Facet: model.Layout, Title: "Siblings with a common prefix", Weight: 1.2, find: hiddenByPrefix,
		Question:   "Do siblings repeat a prefix that wants to be a folder?",
		Why:        "A prefix shared by many files is a folder that nobody made: the grouping exists in the names but not in the tree.",
		Remedy:     "Make a folder of the prefix and drop it from the names.",
		Parameters: []Parameter{{"siblings", "files that share the prefix", 8, 5, 4}},
	},
	{
		Slug: "single-folder-chain", Facet: model.Layout, Title: "Chain of single folders", Weight: 0.6, find: singleFolderChain,
		Question:   "Must a reader open several folders that hold nothing but another folder?",
		Why:        "Each step of such a chain costs a look and tells nothing.",
		Remedy:     "Fold the chain into one folder with the name that says most.",
		Parameters: []Parameter{{"folders", "folders in a row that hold one folder and no file", 3, 2, 2}},
	},
	{
		Slug: "catch-all-folder", Facet: model.Layout, Title: "Catch-all folder", Weight: 1.5, find: catchAllFolder,
		Question:   "Is there a folder for whatever had no other home?",
		Why:        "A folder named for nothing attracts everything; what is in it can only be found by those who put it there.",
		Remedy:     "Move each file to the feature that uses it; what several use gets a folder named for what it provides.",
		Parameters: []Parameter{{"files", "judged files in it, tests aside", 8, 4, 3}},
	},
	{
		Slug: "folder-cycle", Facet: model.Boundaries, Title: "Cycle of folders", Weight: 2, find: folderCycle,
		Question: "Do folders need each other in a ring?",
		Why:      "Folders in a ring are one thing cut into pieces: none can be moved, tested or given to another team alone.",
		Remedy:   "Cut the dependencies named below, or move what both need into a folder that both may use.",
	},
	{
		Slug: "file-cycle", Facet: model.Boundaries, Title: "Cycle of files", Weight: 2.5, find: fileCycle,
		Question: "Do files need each other in a ring?",
		Why:      "None of the files in a ring can be understood, tested or moved without all the others.",
		Remedy:   "Cut the dependencies named below: move what both ends share into a file of its own, or pass it in.",
	},
	{
		Slug: "charter-breach", Facet: model.Boundaries, Title: "Breach of the charter", Weight: 3, find: charterBreach,
		Question: "Does a dependency break the charter?",
		Why:      "The charter says which part may depend on which; each breach is a way round it that others will follow.",
		Remedy:   "Move what is needed, hand it in from outside, or agree on an exception with a reason and a last day.",
	},
	{
		Slug: "climbing-imports", Facet: model.Boundaries, Title: "Long climbing imports", Weight: 1, find: climbingImports,
		Question:   "Do imports climb through many folders?",
		Why:        "An import that climbs out of several folders shows that what belongs together lies far apart, and it breaks when either end moves.",
		Remedy:     "Move the two ends together, or name the target by a path alias or a package.",
		Parameters: []Parameter{{"steps", "folders an import climbs", 4, 3, 3}},
	},
	{
		Slug: "long-file", Facet: model.Units, Title: "Long file", Weight: 2, find: longFile,
		Question:   "Is a file too long to be read in one go?",
		Why:        "A long file usually has several duties, and every change to any of them meets all the others.",
		Remedy:     "Split it along its duties; the largest definitions named below are where to start.",
		Parameters: []Parameter{{"code lines", "lines of code in a file; half as many again for tests", 800, 500, 400}},
	},
	{
		Slug: "near-twin", Facet: model.Units, Title: "Near twin", Weight: 1.5, find: nearTwin,
		Question:   "Does nearly the same code stand in several places?",
		Why:        "What is corrected in one place stays wrong in the others, and nobody knows which of them is the right one.",
		Remedy:     "Keep one of them, with what differs as a parameter, and let the others call it.",
		Parameters: []Parameter{{"lines", "lines from which a repetition counts", 40, 25, 20}},
	},
	{
		Slug: "numbered-name", Facet: model.Names, Title: "Numbered name", Weight: 2, find: numberedName,
		Question: "Are things told apart by a number?",
		Why:      "A number says that there are several, not how they differ; every reader has to open all of them.",
		Remedy:   "Name each for what only it does, or make one of them with a parameter.",
	},
	{
		Slug: "vague-name", Facet: model.Names, Title: "Vague name", Weight: 1.5, find: vagueName,
		Question: "Does a name fit anything?",
		Why:      "A name that fits anything is passed over by readers and collects unrelated code.",
		Remedy:   "Name it for what it does to what; where it does several things, split it first.",
	},
	{
		Slug: "case-against-folder", Facet: model.Names, Title: "Case against its folder", Weight: 1, find: caseAgainstFolder,
		Question:   "Is a file's name written in another case than its siblings'?",
		Why:        "Readers guess names; one file written differently is not found, and on some systems it clashes.",
		Remedy:     "Write it as its siblings are written.",
		Parameters: []Parameter{{"siblings", "files whose case can be told", 8, 5, 5}, {"share", "of them that are written alike", 0.85, 0.75, 0.75}},
	},
}
