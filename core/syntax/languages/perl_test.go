package languages_test

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestPerl(t *testing.T) {
	run(t, []sample{
		{name: "packages, subs and what they stand on", file: "Shelf.pm", text: `package Hollin::Shelf;
use strict;
use parent -norequire, 'Hollin::Rack';
use Hollin::Lots qw(weigh dry);
use constant { MAX => 40, MIN => [1, 2] };
use constant NAME => 'shelf';
our $count = 0;
our @ISA = ('Hollin::Base');

sub new {
    my ($class, %args) = @_;
    require Hollin::Late;
    return bless { }, $class;
}
sub declared;
sub _hidden($$;@) { return "}" }
sub Hollin::Other::far { 1 }
package Hollin::Side {
    has slots => (is => 'rw', default => sub { {} });
    sub inner { }
}
1;
__END__
sub no { }
=head1 NAME

Hollin::Shelf - holds lots
`, defs: []string{"+class Hollin::Shelf 1-23", "+constant Hollin::Shelf.MAX 5-5", "+constant Hollin::Shelf.MIN 5-5", "+constant Hollin::Shelf.NAME 6-6", "+variable Hollin::Shelf.count 7-7", "+method Hollin::Shelf.new 10-14", "function Hollin::Shelf._hidden 16-16", "+function Hollin::Other.far 17-17", "+namespace Hollin::Side 18-21", "+property Hollin::Side.slots 19-19", "+function Hollin::Side.inner 20-20"},
			imports: []string{"2 strict: *", "4 Hollin::Lots: dry weigh", "12 lazy import Hollin::Late: "}},
		{name: "quoting in every way", file: "a.pl", text: `my $a = q{sub no { }}; my $b = qq(a (nested) "b");
my @c = qw/a b}/; $x =~ s{a}{ sub { b } }ge; $y =~ tr/a-z/A-Z/; my $r = m!/!;
my $d = $x / 2 / $y; my $e = $h{s}; my %f = (y => 1, q => 2, s => 3);
if (/}/ && $x =~ m,[/\\],) { } print "it's" . '"' . ` + "`ls`" + `;
my $size = -s $file; my $n = shift // 0; my $l = $#{$x} + $#y; $x =~ s,a,b,;
sub f { split /}/, $_[0]; return $_[0]->y / 2 }
print <<A . <<'B', <<~"C";
sub no { }
A
}
B
    }
    C
my %g = map { $_ => 1 } grep { !/{/ } @x; local ($", $;, $,) = (1, 2, 3);
sub sig($self, $, $n = { a => 1 }, @rest) { $self->{n} }
sub method { $_[0]->m(1) % 3; @{$x}{qw(a b)}; $$x{y}; }
`, defs: []string{"+function f 6-6", "+method sig 15-15", "+function method 16-16"}},
		{name: "documentation anywhere, and formats", file: "a.pl", text: `=pod

sub no { }

=cut

sub one { }
format STDOUT =
@<<<<< }
$name
.
sub two { }
`, defs: []string{"+function one 7-7", "+function two 12-12"}},
		{name: "a string that is not closed costs an island", file: "a.pl", partial: true, text: "my $x = 'open;\nsub a { }\nsub b { }\n", defs: []string{"+function a 2-2", "+function b 3-3"}},
	})
}

func TestPerlLinks(t *testing.T) {
	linksOf(t, map[string]linkCase{
		"modules below lib, named folders and files": {tree: `
-- cpanfile --
requires 'Moo', '2.1';
requires "Plack";
-- lib/Hollin/Shelf.pm --
package Hollin::Shelf;
use Moo;
use Hollin::Lots;
extends 'Hollin::Rack';
with qw(Hollin::Kept);
1;
-- lib/Hollin/Lots.pm --
package Hollin::Lots;
use Hollin::Shelf ();
1;
-- lib/Hollin/Rack.pm --
package Hollin::Rack;
1;
-- lib/Hollin/Kept.pm --
package Hollin::Kept;
1;
-- bin/seed.pl --
#!/usr/bin/perl
use lib 'own';
use Tools;
require './part.pl';
require "gone.pl";
use Hollin::Shelf;
-- bin/part.pl --
-- bin/own/Tools.pm --
package Tools;
`, links: []string{"bin/seed.pl -> bin/own/Tools.pm", "bin/seed.pl -> bin/part.pl", "bin/seed.pl -> lib/Hollin/Shelf.pm", "lib/Hollin/Lots.pm -> lib/Hollin/Shelf.pm",
			"lib/Hollin/Shelf.pm -> lib/Hollin/Kept.pm (inheritance)", "lib/Hollin/Shelf.pm -> lib/Hollin/Rack.pm (inheritance)", "lib/Hollin/Shelf.pm -> lib/Hollin/Lots.pm", "lib/Hollin/Shelf.pm -> lib/Hollin/Rack.pm", "lib/Hollin/Shelf.pm -> lib/Hollin/Kept.pm"},
			external: []string{"Moo 2.1"}, unresolved: []string{"gone.pl"}},
	})
}

func TestPerlSaysWhatItIsAndReads(t *testing.T) {
	f := facts("lib/Hollin/Shelf.pm", "package Hollin::Shelf;\nmy $dir = $ENV{VAULT_DIR} || $ENV{'HOME'};\nget '/lots' => sub { };\n$r->post('/lots/:id')->to('lots#save');\n\n=head1 NAME\n\nHollin::Shelf - Holds the lots of one shelf.\n\n=cut\n")
	require.Equal(t, "Holds the lots of one shelf.", f.Doc)
	require.Equal(t, []string{"HOME", "VAULT_DIR"}, []string{f.Env[0].Name, f.Env[1].Name})
	require.Len(t, f.Routes, 2)
	require.Equal(t, "GET /lots ", f.Routes[0].Method+" "+f.Routes[0].Pattern+" "+f.Routes[0].Handler)
	require.Equal(t, "POST /lots/:id lots.save", f.Routes[1].Method+" "+f.Routes[1].Pattern+" "+f.Routes[1].Handler)
	c := facts("Lots.pm", "package App::Controller::Lots;\nsub show : Local : Args(1) { }\nsub all : Path('/every') { }\nsub list : Path { }\n")
	var got []string
	for _, r := range c.Routes {
		got = append(got, r.Pattern+" "+r.Handler)
	}
	require.Equal(t, []string{"/lots/show/:arg show", "/every/{*args} all", "/lots/{*args} list"}, got)
}
