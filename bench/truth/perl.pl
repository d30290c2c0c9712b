# Writes what PPI says of Perl files, as DumpedTruth reads it: perl perl.pl FOLDER… >DUMP
use strict;
use warnings;
use File::Find;
use PPI;

# Packages, subs, and variables of a package that are declared with "our", outside of subs.
sub in_sub {
    my ($element) = @_;
    while ($element = $element->parent) {
        return 1 if $element->isa('PPI::Statement::Sub') && !$element->isa('PPI::Statement::Scheduled');
    }
    return 0;
}

sub last_line {
    my ($element) = @_;
    my $last = $element->last_token or return '-';
    my $breaks = () = $last->content =~ /\n/g;
    return $last->location->[0] + $breaks;
}

sub package_of {
    my ($element) = @_;
    my $at = $element;
    while (my $parent = $at->parent) {
        my $before = $at;
        while ($before = $before->sprevious_sibling) {
            return $before->namespace if $before->isa('PPI::Statement::Package') && !$before->find_first('PPI::Structure::Block');
        }
        return $parent->namespace if $parent->isa('PPI::Statement::Package') && $at->isa('PPI::Structure::Block');
        $at = $parent;
    }
    return '';
}

sub told {
    my ($file) = @_;
    my $document = PPI::Document->new($file, readonly => 1) or return;
    my $text = $document->serialize;
    return if $text =~ /\r/ || !utf8::decode(my $copy = $text);
    $document->index_locations;
    my @lines;
    my $statements = $document->find('PPI::Statement') || [];
    for my $statement (@$statements) {
        if ($statement->isa('PPI::Statement::Package')) {
            my ($name) = grep { $_->isa('PPI::Token::Word') && $_->content ne 'package' } $statement->schildren;
            next unless $name;
            my $block = $statement->find_first('PPI::Structure::Block');
            (my $short = $name->content);
            push @lines, join "\t", 'D', $short, $name->location->[0], $block ? last_line($block) : '-';
        }
        elsif ($statement->isa('PPI::Statement::Sub') && !$statement->isa('PPI::Statement::Scheduled')) {
            my ($name) = grep { $_->isa('PPI::Token::Word') && $_->content ne 'sub' } $statement->schildren;
            next unless $name && $name->content !~ /\A(?:my|our|state)\z/;
            my $block = $statement->block;
            my ($within, $short) = $name->content =~ /\A(?:(.*)(?:::|'))?(\w+)\z/ or next;
            push @lines, join "\t", 'D', $short, $name->location->[0], $block ? last_line($block) : '-',
                in_sub($statement) || defined $within ? '-' : package_of($statement);
        }
        elsif ($statement->isa('PPI::Statement::Variable') && $statement->type eq 'our' && !in_sub($statement)) {
            for my $symbol ($statement->symbols) {
                push @lines, join "\t", 'D', substr($symbol->content, 1), $symbol->location->[0];
            }
        }
    }
    print "F\t$file\n", map { "$_\n" } @lines;
}

for my $folder (@ARGV) {
    my @files;
    find({ wanted => sub { push @files, $_ if -f && /\.p[lm]\z/ }, no_chdir => 1 }, $folder);
    told($_) for sort @files;
}
