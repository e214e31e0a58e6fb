<template>
  <div class="empty">
    <b>There is nothing at this address.</b>It may be in a production you are not in.<br /><RouterLink to="/"
      ><button class="plain">To the productions</button></RouterLink
    >
  </div>
</template>
