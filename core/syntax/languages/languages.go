// Package languages brings in every language Jantel reads; each registers
// itself.
package languages

import (
	_ "jantel/core/syntax/catalogues"   // texts by their keys, samples of settings
	_ "jantel/core/syntax/cfamily"      // C and C++
	_ "jantel/core/syntax/csharp"       // C#
	_ "jantel/core/syntax/gdscript"     // GDScript, its scenes and resources
	_ "jantel/core/syntax/golang"       // Go
	_ "jantel/core/syntax/java"         // Java
	_ "jantel/core/syntax/javascript"   // JavaScript and TypeScript
	_ "jantel/core/syntax/kotlin"       // Kotlin
	_ "jantel/core/syntax/markdown"     // READMEs
	_ "jantel/core/syntax/perl"         // Perl
	_ "jantel/core/syntax/php"          // PHP
	_ "jantel/core/syntax/projectfiles" // package.json, go.mod and their like
	_ "jantel/core/syntax/python"       // Python
	_ "jantel/core/syntax/ruby"         // Ruby
	_ "jantel/core/syntax/rust"         // Rust
	_ "jantel/core/syntax/sql"          // SQL
	_ "jantel/core/syntax/styles"       // CSS, SCSS, Sass and Less
	_ "jantel/core/syntax/templates"    // pages and template languages
	_ "jantel/core/syntax/xaml"         // XAML and other XML
)
