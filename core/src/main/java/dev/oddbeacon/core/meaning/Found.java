package dev.oddbeacon.core.meaning;

/** A member of a type, or of one that it extends. */
record Found(Member member, Type.Known owner) {
    Spot spot() {
        Spot type = owner.declaration().spot();
        return new Spot(type.segment(), type.blob(), member.declared(), type.branchNumber(), type.file());
    }
}
