namespace Formatum.Core.Publications;

/// <summary>A linked file against what was last read of it.</summary>
public enum LinkState { Current, Changed, Missing }
