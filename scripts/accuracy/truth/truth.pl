# What Perl's document parser says of a tree: packages and subs with their
# lines, and the files that use and require name. Prints one JSON object a file.
use strict;
use warnings;
use PPI;
use File::Find;
use JSON::PP;

my $root = shift;
my (@files, %have);
find({ no_chdir => 1, wanted => sub {
    return unless -f $_ && !-l $_ && /\.(pm|pl|t)$/;
    my $p = substr($_, length($root) + 1);
    push @files, $p;
    $have{$p} = 1;
} }, $root);

# Where modules are searched: every folder that some package shows to be one.
my %roots;
for my $p (@files) {
    next unless $p =~ /\.pm$/;
    open my $in, '<', "$root/$p" or next;
    while (<$in>) {
        if (/^\s*package\s+([\w:]+)/) {
            (my $rel = "$1.pm") =~ s{::}{/}g;
            $roots{ substr($p, 0, length($p) - length($rel)) } = 1 if substr("/$p", -length($rel) - 1) eq "/$rel";
            last;
        }
    }
}
my $lookup = sub {
    my ($from, $rel) = @_;
    my @hits = grep { $have{$_} } map { $_ . $rel } sort keys %roots;
    return @hits == 1 ? $hits[0] : undef;
};

for my $p (sort @files) {
    my $doc = PPI::Document->new("$root/$p", readonly => 1) or next;
    $doc->index_locations;
    my (@defs, %links);
    my $end = sub { my $e = shift; my $t = $e->last_token or return $e->line_number; my $n = () = $t->content =~ /\n/g; return $t->line_number + ($t->isa('PPI::Token::HereDoc') ? 0 : $t->isa('PPI::Token::Whitespace') ? 0 : $n) };
    for my $s (@{ $doc->find('PPI::Statement::Sub') || [] }) {
        next if $s->forward || !$s->block || !$s->name || $s->isa('PPI::Statement::Scheduled');
        (my $name = $s->name) =~ s/.*:://;
        push @defs, { kind => 'function', name => $name, line => $s->line_number, end => $end->($s) };
    }
    for my $s (@{ $doc->find('PPI::Statement::Include') || [] }) {
        next if $s->type eq 'no';
        my @mods = ($s->module);
        if ($s->pragma eq 'parent' || $s->pragma eq 'base') {
            next if $s->content =~ /-norequire/;
            @mods = map { $_->isa('PPI::Token::QuoteLike::Words') ? $_->literal : $_->isa('PPI::Token::Quote') ? $_->string : () } $s->children;
        } elsif ($s->pragma =~ /^(constant|lib)$/) { next }
        for my $m (grep { defined && /^\w/ } @mods) {
            (my $rel = "$m.pm") =~ s{::}{/}g;
            my $to = $lookup->($p, $rel);
            $links{$to} = 1 if $to && $to ne $p;
        }
    }
    for my $s (@{ $doc->find('PPI::Statement') || [] }) {
        my $first = $s->schild(0) or next;
        next unless $first->isa('PPI::Token::Word') && $first->content =~ /^(extends|with)$/;
        for my $q (map { $_->isa('PPI::Token::QuoteLike::Words') ? $_->literal : $_->isa('PPI::Token::Quote') ? $_->string : () } $s->schildren) {
            (my $rel = "$q.pm") =~ s{::}{/}g;
            my $to = $lookup->($p, $rel);
            $links{$to} = 1 if $to && $to ne $p;
        }
    }
    print encode_json({ path => $p, defs => \@defs, links => [sort keys %links] }), "\n";
}
