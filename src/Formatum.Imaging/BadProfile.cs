namespace Formatum.Imaging;

/// <summary>A file is no profile that could be used, in words for people.</summary>
public sealed class BadProfile(string message, Exception? cause = null) : Exception(message, cause);
