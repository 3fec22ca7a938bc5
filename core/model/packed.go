package model

import "slices"

// The kinds are packed as their place in these lists, so that unpacking a
// record makes no string for each. New kinds go to the end.
var (
	packedLinkKinds = []LinkKind{"", LinkImport, LinkLazyImport, LinkReExport, LinkNameViaIndex, LinkInheritance, LinkRendering,
		LinkTemplate, LinkRoute, LinkHTTP, LinkMessage, LinkConfiguration, LinkDeclared}
	packedDefinitionKinds = []DefinitionKind{"", DefType, DefClass, DefInterface, DefEnum, DefFunction, DefMethod, DefComponent,
		DefConstant, DefVariable, DefProperty, DefNamespace, DefOther}
)

func packLinkKind(k LinkKind) uint8 { return uint8(max(slices.Index(packedLinkKinds, k), 0)) }
func packDefinitionKind(k DefinitionKind) uint8 {
	return uint8(max(slices.Index(packedDefinitionKinds, k), 0))
}

// linkKindOf and definitionKindOf take any byte, since a record may be damaged.
func linkKindOf(b uint8) LinkKind {
	if int(b) < len(packedLinkKinds) {
		return packedLinkKinds[b]
	}
	return ""
}

func definitionKindOf(b uint8) DefinitionKind {
	if int(b) < len(packedDefinitionKinds) {
		return packedDefinitionKinds[b]
	}
	return ""
}
