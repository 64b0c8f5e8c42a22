// The polygon kernel's glue asks for the file system when it runs under Node. In a browser it never gets so far.
export {}
